using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class ChildrenMove : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<long>(name: "ArchivedUpTo", table: "Classes", type: "INTEGER", nullable: true);

            migrationBuilder.AddColumn<int>(name: "BeginsOn", table: "Classes", type: "INTEGER", nullable: true);

            migrationBuilder.AddColumn<bool>(name: "WithoutNotesOfBefore", table: "Classes", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.AddColumn<int>(name: "KeptUntil", table: "Children", type: "INTEGER", nullable: true);

            migrationBuilder.AddColumn<int>(name: "LeftOn", table: "Children", type: "INTEGER", nullable: true);

            migrationBuilder.CreateTable(
                name: "NewYears",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    SchoolId = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    BeginsOn = table.Column<int>(type: "INTEGER", nullable: false),
                    Ended = table.Column<string>(type: "TEXT", nullable: false),
                    Made = table.Column<string>(type: "TEXT", nullable: false),
                    Left = table.Column<string>(type: "TEXT", nullable: false),
                    Stays = table.Column<string>(type: "TEXT", nullable: false),
                    UndoneAt = table.Column<long>(type: "INTEGER", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_NewYears", x => x.Id);
                    table.ForeignKey(
                        name: "FK_NewYears_Schools_SchoolId",
                        column: x => x.SchoolId,
                        principalTable: "Schools",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "Stays",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    ChildId = table.Column<int>(type: "INTEGER", nullable: false),
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    Until = table.Column<int>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Stays", x => x.Id);
                    table.ForeignKey(
                        name: "FK_Stays_Children_ChildId",
                        column: x => x.ChildId,
                        principalTable: "Children",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "FK_Stays_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "IX_NewYears_SchoolId", table: "NewYears", column: "SchoolId");

            migrationBuilder.CreateIndex(name: "IX_Stays_ChildId", table: "Stays", column: "ChildId");

            migrationBuilder.CreateIndex(name: "IX_Stays_ClassId_ChildId", table: "Stays", columns: new[] { "ClassId", "ChildId" });

            migrationBuilder.LetRecordsMove();
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "NewYears");

            migrationBuilder.DropTable(name: "Stays");

            migrationBuilder.DropColumn(name: "ArchivedUpTo", table: "Classes");

            migrationBuilder.DropColumn(name: "BeginsOn", table: "Classes");

            migrationBuilder.DropColumn(name: "WithoutNotesOfBefore", table: "Classes");

            migrationBuilder.DropColumn(name: "KeptUntil", table: "Children");

            migrationBuilder.DropColumn(name: "LeftOn", table: "Children");
        }
    }
}
