using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class Planning : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(name: "Pinned", table: "PlannedStarterRow", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.AddColumn<string>(name: "ActivityReason", table: "PlannedDays", type: "TEXT", nullable: false, defaultValue: "");

            migrationBuilder.AddColumn<bool>(name: "ChoicePinned", table: "PlannedDays", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.AddColumn<bool>(name: "FocusPinned", table: "PlannedDays", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.AddColumn<bool>(name: "TransitionPinned", table: "PlannedDays", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.AddColumn<int>(name: "ClassId", table: "Closures", type: "INTEGER", nullable: true);

            migrationBuilder.AddColumn<int>(name: "Kind", table: "Closures", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<TimeOnly>(name: "OpenFrom", table: "Closures", type: "TEXT", nullable: true);

            migrationBuilder.AddColumn<TimeOnly>(name: "OpenUntil", table: "Closures", type: "TEXT", nullable: true);

            migrationBuilder.CreateTable(
                name: "AdultHours",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    AdultId = table.Column<int>(type: "INTEGER", nullable: false),
                    Weekday = table.Column<int>(type: "INTEGER", nullable: false),
                    From = table.Column<TimeOnly>(type: "TEXT", nullable: false),
                    Until = table.Column<TimeOnly>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AdultHours", x => x.Id);
                    table.ForeignKey(
                        name: "FK_AdultHours_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "CalendarEntries",
                columns: table => new
                {
                    Uid = table.Column<string>(type: "TEXT", nullable: false),
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    Day = table.Column<int>(type: "INTEGER", nullable: false),
                    Sequence = table.Column<int>(type: "INTEGER", nullable: false),
                    Content = table.Column<string>(type: "TEXT", nullable: false),
                    Changed = table.Column<long>(type: "INTEGER", nullable: false),
                    Cancelled = table.Column<bool>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CalendarEntries", x => x.Uid);
                    table.ForeignKey(
                        name: "FK_CalendarEntries_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "PlannedMoreRow",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    PlannedDayId = table.Column<int>(type: "INTEGER", nullable: false),
                    Skill = table.Column<string>(type: "TEXT", nullable: false),
                    Number = table.Column<int>(type: "INTEGER", nullable: false),
                    Of = table.Column<int>(type: "INTEGER", nullable: false),
                    Stage = table.Column<int>(type: "INTEGER", nullable: false),
                    Activity = table.Column<string>(type: "TEXT", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                    ActivityReason = table.Column<string>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_PlannedMoreRow", x => x.Id);
                    table.ForeignKey(
                        name: "FK_PlannedMoreRow_PlannedDays_PlannedDayId",
                        column: x => x.PlannedDayId,
                        principalTable: "PlannedDays",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "YearPlans",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    Year = table.Column<int>(type: "INTEGER", nullable: false),
                    Version = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    AdultId = table.Column<int>(type: "INTEGER", nullable: false),
                    What = table.Column<string>(type: "TEXT", nullable: false),
                    BackTo = table.Column<int>(type: "INTEGER", nullable: true),
                    Document = table.Column<string>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_YearPlans", x => x.Id);
                    table.ForeignKey(
                        name: "FK_YearPlans_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "IX_AdultHours_ClassId", table: "AdultHours", column: "ClassId");

            migrationBuilder.CreateIndex(name: "IX_CalendarEntries_ClassId_Day", table: "CalendarEntries", columns: new[] { "ClassId", "Day" });

            migrationBuilder.CreateIndex(name: "IX_PlannedMoreRow_PlannedDayId", table: "PlannedMoreRow", column: "PlannedDayId");

            migrationBuilder.CreateIndex(
                name: "IX_YearPlans_ClassId_Year_Version",
                table: "YearPlans",
                columns: new[] { "ClassId", "Year", "Version" },
                unique: true
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "AdultHours");

            migrationBuilder.DropTable(name: "CalendarEntries");

            migrationBuilder.DropTable(name: "PlannedMoreRow");

            migrationBuilder.DropTable(name: "YearPlans");

            migrationBuilder.DropColumn(name: "Pinned", table: "PlannedStarterRow");

            migrationBuilder.DropColumn(name: "ActivityReason", table: "PlannedDays");

            migrationBuilder.DropColumn(name: "ChoicePinned", table: "PlannedDays");

            migrationBuilder.DropColumn(name: "FocusPinned", table: "PlannedDays");

            migrationBuilder.DropColumn(name: "TransitionPinned", table: "PlannedDays");

            migrationBuilder.DropColumn(name: "ClassId", table: "Closures");

            migrationBuilder.DropColumn(name: "Kind", table: "Closures");

            migrationBuilder.DropColumn(name: "OpenFrom", table: "Closures");

            migrationBuilder.DropColumn(name: "OpenUntil", table: "Closures");
        }
    }
}
