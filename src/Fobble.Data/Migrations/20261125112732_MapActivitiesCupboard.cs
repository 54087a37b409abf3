using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class MapActivitiesCupboard : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "Allergies", table: "Classes", type: "TEXT", nullable: false, defaultValue: "[]");

            migrationBuilder.AddColumn<int>(name: "Groups", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<bool>(name: "Mouths", table: "Classes", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.AddColumn<int>(name: "Order", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "Secure", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "Sheets", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "Sizes", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "Symbols", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "YearWord", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "OwnActivities",
                columns: table => new
                {
                    SchoolId = table.Column<int>(type: "INTEGER", nullable: false),
                    Activity = table.Column<string>(type: "TEXT", nullable: false),
                    Content = table.Column<string>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_OwnActivities", x => new { x.SchoolId, x.Activity });
                    table.ForeignKey(
                        name: "FK_OwnActivities_Schools_SchoolId",
                        column: x => x.SchoolId,
                        principalTable: "Schools",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "SkillChanges",
                columns: table => new
                {
                    SchoolId = table.Column<int>(type: "INTEGER", nullable: false),
                    Skill = table.Column<string>(type: "TEXT", nullable: false),
                    Hidden = table.Column<bool>(type: "INTEGER", nullable: false),
                    Instead = table.Column<string>(type: "TEXT", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SkillChanges", x => new { x.SchoolId, x.Skill });
                    table.ForeignKey(
                        name: "FK_SkillChanges_Schools_SchoolId",
                        column: x => x.SchoolId,
                        principalTable: "Schools",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "Stock",
                columns: table => new
                {
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    Item = table.Column<string>(type: "TEXT", nullable: false),
                    Count = table.Column<int>(type: "INTEGER", nullable: false),
                    Own = table.Column<string>(type: "TEXT", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Stock", x => new { x.ClassId, x.Item });
                    table.ForeignKey(
                        name: "FK_Stock_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "OwnActivities");

            migrationBuilder.DropTable(name: "SkillChanges");

            migrationBuilder.DropTable(name: "Stock");

            migrationBuilder.DropColumn(name: "Allergies", table: "Classes");

            migrationBuilder.DropColumn(name: "Groups", table: "Classes");

            migrationBuilder.DropColumn(name: "Mouths", table: "Classes");

            migrationBuilder.DropColumn(name: "Order", table: "Classes");

            migrationBuilder.DropColumn(name: "Secure", table: "Classes");

            migrationBuilder.DropColumn(name: "Sheets", table: "Classes");

            migrationBuilder.DropColumn(name: "Sizes", table: "Classes");

            migrationBuilder.DropColumn(name: "Symbols", table: "Classes");

            migrationBuilder.DropColumn(name: "YearWord", table: "Classes");
        }
    }
}
