namespace Fobble.Formats.Rosters;

/// <summary>The files of a zip in the form of OneRoster 1.2 (1EdTech, CSV binding) that say who is in which class, and their columns in the order of the standard.</summary>
internal sealed record OneRosterFile(string Name, params string[] Columns)
{
    public static readonly OneRosterFile Manifest = new("manifest", "propertyName", "value");

    public static readonly OneRosterFile Sessions = new(
        "academicSessions",
        "sourcedId",
        "status",
        "dateLastModified",
        "title",
        "type",
        "startDate",
        "endDate",
        "parentSourcedId",
        "schoolYear"
    );

    public static readonly OneRosterFile Orgs = new("orgs", "sourcedId", "status", "dateLastModified", "name", "type", "identifier", "parentSourcedId");

    public static readonly OneRosterFile Courses = new(
        "courses",
        "sourcedId",
        "status",
        "dateLastModified",
        "schoolYearSourcedId",
        "title",
        "courseCode",
        "grades",
        "orgSourcedId",
        "subjects",
        "subjectCodes"
    );

    public static readonly OneRosterFile Classes = new(
        "classes",
        "sourcedId",
        "status",
        "dateLastModified",
        "title",
        "grades",
        "courseSourcedId",
        "classCode",
        "classType",
        "location",
        "schoolSourcedId",
        "termSourcedIds",
        "subjects",
        "subjectCodes",
        "periods"
    );

    public static readonly OneRosterFile Users = new(
        "users",
        "sourcedId",
        "status",
        "dateLastModified",
        "enabledUser",
        "username",
        "userIds",
        "givenName",
        "familyName",
        "middleName",
        "identifier",
        "email",
        "sms",
        "phone",
        "agentSourcedIds",
        "grades",
        "password",
        "userMasterIdentifier",
        "resourceSourcedIds",
        "preferredGivenName",
        "preferredMiddleName",
        "preferredFamilyName",
        "primaryOrgSourcedId",
        "pronouns"
    );

    public static readonly OneRosterFile Roles = new(
        "roles",
        "sourcedId",
        "status",
        "dateLastModified",
        "userSourcedId",
        "roleType",
        "role",
        "beginDate",
        "endDate",
        "orgSourcedId",
        "userProfileSourcedId"
    );

    public static readonly OneRosterFile Enrollments = new(
        "enrollments",
        "sourcedId",
        "status",
        "dateLastModified",
        "classSourcedId",
        "schoolSourcedId",
        "userSourcedId",
        "role",
        "primary",
        "beginDate",
        "endDate"
    );

    public static readonly OneRosterFile Demographics = new(
        "demographics",
        "sourcedId",
        "status",
        "dateLastModified",
        "birthDate",
        "sex",
        "americanIndianOrAlaskaNative",
        "asian",
        "blackOrAfricanAmerican",
        "nativeHawaiianOrOtherPacificIslander",
        "white",
        "demographicRaceTwoOrMoreRaces",
        "hispanicOrLatinoEthnicity",
        "countryOfBirthCode",
        "stateOfBirthAbbreviation",
        "cityOfBirth",
        "publicSchoolResidenceStatus"
    );

    /// <summary>Those that this application writes; all others of the standard are said to be absent.</summary>
    public static readonly IReadOnlyList<OneRosterFile> Written = [Sessions, Classes, Courses, Demographics, Enrollments, Orgs, Roles, Users];

    public static readonly IReadOnlyList<string> Absent =
    [
        "categories",
        "classResources",
        "courseResources",
        "lineItemLearningObjectiveIds",
        "lineItems",
        "lineItemScoreScales",
        "resources",
        "resultLearningObjectiveIds",
        "results",
        "resultScoreScales",
        "scoreScales",
        "userProfiles",
        "userResources",
    ];

    public string FileName => $"{Name}.csv";

    /// <summary>A line with these fields, the others empty.</summary>
    public IReadOnlyList<string> Line(params (string Column, string Value)[] fields)
    {
        var values = fields.ToDictionary(f => f.Column, f => f.Value);
        return [.. Columns.Select(c => values.GetValueOrDefault(c, ""))];
    }
}
