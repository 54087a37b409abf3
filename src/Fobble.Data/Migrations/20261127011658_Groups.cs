using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class Groups : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(name: "Until", table: "PairWishes", type: "INTEGER", nullable: true);

            migrationBuilder.AddColumn<bool>(name: "NeedsAdultNear", table: "Children", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.CreateTable(
                name: "AdultGroups",
                columns: table => new
                {
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    AdultId = table.Column<int>(type: "INTEGER", nullable: false),
                    Strands = table.Column<string>(type: "TEXT", nullable: false),
                    Most = table.Column<int>(type: "INTEGER", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AdultGroups", x => new { x.ClassId, x.AdultId });
                    table.ForeignKey(
                        name: "FK_AdultGroups_AspNetUsers_AdultId",
                        column: x => x.AdultId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "FK_AdultGroups_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "AdultWishes",
                columns: table => new
                {
                    ChildId = table.Column<int>(type: "INTEGER", nullable: false),
                    AdultId = table.Column<int>(type: "INTEGER", nullable: false),
                    With = table.Column<bool>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_AdultWishes", x => new { x.ChildId, x.AdultId });
                    table.ForeignKey(
                        name: "FK_AdultWishes_AspNetUsers_AdultId",
                        column: x => x.AdultId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "FK_AdultWishes_Children_ChildId",
                        column: x => x.ChildId,
                        principalTable: "Children",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "DayMoves",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    Day = table.Column<int>(type: "INTEGER", nullable: false),
                    AwayChildId = table.Column<int>(type: "INTEGER", nullable: false),
                    ChildId = table.Column<int>(type: "INTEGER", nullable: false),
                    FromSessionId = table.Column<int>(type: "INTEGER", nullable: true),
                    ToSessionId = table.Column<int>(type: "INTEGER", nullable: false),
                    Reason = table.Column<string>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_DayMoves", x => x.Id);
                    table.ForeignKey(
                        name: "FK_DayMoves_GroupSessions_ToSessionId",
                        column: x => x.ToSessionId,
                        principalTable: "GroupSessions",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "GroupSettings",
                columns: table => new
                {
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    MinSize = table.Column<int>(type: "INTEGER", nullable: false),
                    MaxSize = table.Column<int>(type: "INTEGER", nullable: false),
                    EveryoneOnce = table.Column<bool>(type: "INTEGER", nullable: false),
                    MostNearAdult = table.Column<int>(type: "INTEGER", nullable: true),
                    MostAtOnce = table.Column<int>(type: "INTEGER", nullable: true),
                    Near = table.Column<int>(type: "INTEGER", nullable: false),
                    Lessons = table.Column<int>(type: "INTEGER", nullable: false),
                    Turns = table.Column<int>(type: "INTEGER", nullable: false),
                    LookAgain = table.Column<int>(type: "INTEGER", nullable: false),
                    Company = table.Column<int>(type: "INTEGER", nullable: false),
                    Slips = table.Column<int>(type: "INTEGER", nullable: false),
                    Numbers = table.Column<int>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_GroupSettings", x => x.ClassId);
                    table.ForeignKey(
                        name: "FK_GroupSettings_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "TimesOut",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    ChildId = table.Column<int>(type: "INTEGER", nullable: false),
                    Weekday = table.Column<int>(type: "INTEGER", nullable: false),
                    From = table.Column<TimeOnly>(type: "TEXT", nullable: false),
                    Until = table.Column<TimeOnly>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_TimesOut", x => x.Id);
                    table.ForeignKey(
                        name: "FK_TimesOut_Children_ChildId",
                        column: x => x.ChildId,
                        principalTable: "Children",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "IX_AdultGroups_AdultId", table: "AdultGroups", column: "AdultId");

            migrationBuilder.CreateIndex(name: "IX_AdultWishes_AdultId", table: "AdultWishes", column: "AdultId");

            migrationBuilder.CreateIndex(name: "IX_DayMoves_AwayChildId_Day", table: "DayMoves", columns: new[] { "AwayChildId", "Day" });

            migrationBuilder.CreateIndex(name: "IX_DayMoves_ToSessionId", table: "DayMoves", column: "ToSessionId");

            migrationBuilder.CreateIndex(name: "IX_TimesOut_ChildId", table: "TimesOut", column: "ChildId");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "AdultGroups");

            migrationBuilder.DropTable(name: "AdultWishes");

            migrationBuilder.DropTable(name: "DayMoves");

            migrationBuilder.DropTable(name: "GroupSettings");

            migrationBuilder.DropTable(name: "TimesOut");

            migrationBuilder.DropColumn(name: "Until", table: "PairWishes");

            migrationBuilder.DropColumn(name: "NeedsAdultNear", table: "Children");
        }
    }
}
