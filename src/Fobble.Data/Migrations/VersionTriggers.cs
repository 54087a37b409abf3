using Microsoft.EntityFrameworkCore.Migrations;

namespace Fobble.Data.Migrations;

/// <summary>The triggers that count changes: whoever writes, from wherever, raises the number of what was changed.</summary>
internal static class VersionTriggers
{
    private const string OfChild = "(SELECT ClassId FROM Children WHERE Id = {0}.ChildId)";
    private const string OfSchool = "(SELECT Id FROM Classes WHERE SchoolId = {0}.SchoolId)";
    private const string OfDay = "(SELECT ClassId FROM PlannedDays WHERE Id = {0}.PlannedDayId)";
    private const string OfObservation = "(SELECT c.ClassId FROM Observations o JOIN Children c ON c.Id = o.ChildId WHERE o.Id = {0}.ObservationId)";
    private const string OfSession = "(SELECT ClassId FROM GroupSessions WHERE Id = {0}.SessionId)";

    // Which column of ClassVersions a change to a table raises, and for which classes.
    private static readonly (string Table, string Part, string Classes)[] Counted =
    [
        ("GroupCycles", "Groups", "({0}.ClassId)"),
        ("GroupSessions", "Groups", "({0}.ClassId)"),
        ("GroupMembers", "Groups", OfSession),
        ("PlannedDays", "Week", "({0}.ClassId)"),
        ("PlannedStarterRow", "Week", OfDay),
        ("PlannedMoreRow", "Week", OfDay),
        ("Terms", "Calendar", OfSchool),
        ("Closures", "Calendar", OfSchool),
        ("LessonSlots", "Calendar", "({0}.ClassId)"),
        ("AdultHours", "Calendar", "({0}.ClassId)"),
        ("Children", "Record", "({0}.ClassId)"),
        ("Withdrawals", "Record", OfObservation),
        ("BaselineChecks", "Record", "({0}.ClassId)"),
    ];

    private static readonly (string When, string Row)[] Changes = [("INSERT", "NEW"), ("UPDATE", "NEW"), ("DELETE", "OLD")];

    public static void AddVersionTriggers(this MigrationBuilder builder)
    {
        ArgumentNullException.ThrowIfNull(builder);
        foreach (var (table, part, classes) in Counted)
        {
            foreach (var (when, row) in Changes)
            {
                var of = string.Format(System.Globalization.CultureInfo.InvariantCulture, classes, row);
                builder.Sql(
                    $"CREATE TRIGGER Count{table}{when} AFTER {when} ON {table} BEGIN UPDATE ClassVersions SET {part} = {part} + 1 WHERE ClassId IN {of}; END;"
                );
            }
        }

        foreach (var table in (string[])["SkillChanges", "OwnActivities"])
        {
            foreach (var (when, row) in Changes)
            {
                builder.Sql(
                    $"CREATE TRIGGER Count{table}{when} AFTER {when} ON {table} BEGIN UPDATE Schools SET ContentVersion = ContentVersion + 1 WHERE Id = {row}.SchoolId; END;"
                );
            }
        }

        builder.Sql(
            """
            CREATE TRIGGER CountGroupMembersOfSetINSERT AFTER INSERT ON GroupMembers
            BEGIN UPDATE GroupCycles SET Version = Version + 1 WHERE Id = (SELECT CycleId FROM GroupSessions WHERE Id = NEW.SessionId); END;
            CREATE TRIGGER CountGroupMembersOfSetDELETE AFTER DELETE ON GroupMembers
            BEGIN UPDATE GroupCycles SET Version = Version + 1 WHERE Id = (SELECT CycleId FROM GroupSessions WHERE Id = OLD.SessionId); END;
            CREATE TRIGGER ChildChangesClass AFTER UPDATE OF ClassId ON Children WHEN OLD.ClassId <> NEW.ClassId
            BEGIN UPDATE ClassVersions SET Record = Record + 1 WHERE ClassId = OLD.ClassId; END;
            CREATE TRIGGER NewClassHasVersions AFTER INSERT ON Classes
            BEGIN INSERT INTO ClassVersions (ClassId, Groups, Week, Calendar, Record, LastSeen) VALUES (NEW.Id, 1, 1, 1, 1, 0); END;
            INSERT INTO ClassVersions (ClassId, Groups, Week, Calendar, Record, LastSeen)
            SELECT k.Id, 1, 1, 1, 1, COALESCE((SELECT MAX(o.Sequence) FROM Observations o JOIN Children c ON c.Id = o.ChildId WHERE c.ClassId = k.Id), 0) FROM Classes k;
            """
        );
    }

    /// <summary>
    /// Builds the observations' table anew with a sequence that never gives a number twice. SQLite can't add that to a table that is there; the steps are
    /// those of its documentation (ALTER TABLE, section 7). Foreign keys have been switched off for it: dropping the old table would take withdrawals along.
    /// </summary>
    public static void GiveObservationsSequence(this MigrationBuilder builder)
    {
        ArgumentNullException.ThrowIfNull(builder);
        builder.Sql(
            """
            CREATE TABLE ObservationsInSequence (
                Sequence INTEGER NOT NULL CONSTRAINT PK_Observations PRIMARY KEY AUTOINCREMENT,
                Id TEXT NOT NULL CONSTRAINT AK_Observations_Id UNIQUE,
                ChildId INTEGER NOT NULL, Skill TEXT NOT NULL, At INTEGER NOT NULL, Day INTEGER NOT NULL, AdultId INTEGER NOT NULL, Setting INTEGER NOT NULL,
                Support INTEGER NOT NULL, Representation INTEGER NOT NULL, Numbers TEXT NULL, Slip TEXT NULL, Strategy TEXT NULL, Note TEXT NULL,
                SessionId INTEGER NULL, CheckId INTEGER NULL, SeenBy TEXT NULL,
                CONSTRAINT FK_Observations_AspNetUsers_AdultId FOREIGN KEY (AdultId) REFERENCES AspNetUsers (Id) ON DELETE CASCADE,
                CONSTRAINT FK_Observations_Children_ChildId FOREIGN KEY (ChildId) REFERENCES Children (Id) ON DELETE CASCADE,
                CONSTRAINT FK_Observations_GroupSessions_SessionId FOREIGN KEY (SessionId) REFERENCES GroupSessions (Id) ON DELETE RESTRICT
            );
            INSERT INTO ObservationsInSequence (Sequence, Id, ChildId, Skill, At, Day, AdultId, Setting, Support, Representation, Numbers, Slip, Strategy, Note, SessionId, CheckId, SeenBy)
            SELECT rowid, Id, ChildId, Skill, At, Day, AdultId, Setting, Support, Representation, Numbers, Slip, Strategy, Note, SessionId, CheckId, SeenBy FROM Observations;
            DROP TABLE Observations;
            ALTER TABLE ObservationsInSequence RENAME TO Observations;
            CREATE INDEX IX_Observations_AdultId ON Observations (AdultId);
            CREATE INDEX IX_Observations_ChildId_Skill_At ON Observations (ChildId, Skill, At);
            CREATE INDEX IX_Observations_ChildId_Day ON Observations (ChildId, Day);
            CREATE INDEX IX_Observations_SessionId ON Observations (SessionId);
            CREATE INDEX IX_Observations_CheckId ON Observations (CheckId);
            CREATE TRIGGER ObservationsNeverChange BEFORE UPDATE ON Observations
            BEGIN SELECT RAISE(ABORT, 'An observation is never changed; withdraw it and add another.'); END;
            CREATE TRIGGER CountObservationsINSERT AFTER INSERT ON Observations
            BEGIN UPDATE ClassVersions SET LastSeen = NEW.Sequence WHERE ClassId = (SELECT ClassId FROM Children WHERE Id = NEW.ChildId); END;
            CREATE TRIGGER CountObservationsDELETE AFTER DELETE ON Observations
            BEGIN UPDATE ClassVersions SET Record = Record + 1 WHERE ClassId = (SELECT ClassId FROM Children WHERE Id = OLD.ChildId); END;
            """
        );
    }

    /// <summary>
    /// A record goes with its child: the class it comes to has seen as far as that record goes, or its newest observations would not be read there. An archive shows
    /// other children than the class did.
    /// </summary>
    public static void LetRecordsMove(this MigrationBuilder builder)
    {
        ArgumentNullException.ThrowIfNull(builder);
        builder.Sql(
            """
            DROP TRIGGER ChildChangesClass;
            CREATE TRIGGER ChildChangesClass AFTER UPDATE OF ClassId ON Children WHEN OLD.ClassId <> NEW.ClassId
            BEGIN
                UPDATE ClassVersions SET Record = Record + 1 WHERE ClassId = OLD.ClassId;
                UPDATE ClassVersions SET LastSeen = MAX(LastSeen, COALESCE((SELECT MAX(Sequence) FROM Observations WHERE ChildId = NEW.Id), 0)) WHERE ClassId = NEW.ClassId;
            END;
            CREATE TRIGGER ClassIsPutAway AFTER UPDATE OF ArchivedOn ON Classes WHEN OLD.ArchivedOn IS NOT NEW.ArchivedOn
            BEGIN UPDATE ClassVersions SET Record = Record + 1 WHERE ClassId = NEW.Id; END;
            """
        );
    }

    /// <summary>One check of a kind under way a child, one jar a class. What was there twice is ended; what has no answer goes.</summary>
    public static void AllowOneAtATime(this MigrationBuilder builder)
    {
        ArgumentNullException.ThrowIfNull(builder);
        builder.Sql(
            """
            DELETE FROM BaselineChecks WHERE EndedAt IS NULL AND NOT EXISTS (SELECT 1 FROM Observations o WHERE o.CheckId = BaselineChecks.Id)
                AND EXISTS (SELECT 1 FROM BaselineChecks b WHERE b.ChildId = BaselineChecks.ChildId AND b.Strand IS BaselineChecks.Strand AND b.EndedAt IS NULL AND b.Id < BaselineChecks.Id);
            UPDATE BaselineChecks SET EndedAt = StartedAt WHERE EndedAt IS NULL
                AND EXISTS (SELECT 1 FROM BaselineChecks b WHERE b.ChildId = BaselineChecks.ChildId AND b.Strand IS BaselineChecks.Strand AND b.EndedAt IS NULL AND b.Id > BaselineChecks.Id);
            CREATE UNIQUE INDEX OneOpenCheck ON BaselineChecks (ChildId, IFNULL(Strand, '')) WHERE EndedAt IS NULL;
            UPDATE JarRounds SET Counted = Amount, Opened = Filled WHERE Counted IS NULL
                AND EXISTS (SELECT 1 FROM JarRounds j WHERE j.ClassId = JarRounds.ClassId AND j.Counted IS NULL AND j.Id > JarRounds.Id);
            CREATE UNIQUE INDEX OneOpenJar ON JarRounds (ClassId) WHERE Counted IS NULL;
            """
        );
    }
}
