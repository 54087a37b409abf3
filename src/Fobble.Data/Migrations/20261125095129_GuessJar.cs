using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class GuessJar : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(name: "JarRestsUntil", table: "Classes", type: "INTEGER", nullable: true);

            migrationBuilder.CreateTable(
                name: "JarRounds",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    Jar = table.Column<string>(type: "TEXT", nullable: false),
                    JarMl = table.Column<double>(type: "REAL", nullable: false),
                    Things = table.Column<string>(type: "TEXT", nullable: false),
                    Shape = table.Column<int>(type: "INTEGER", nullable: false),
                    AcrossMm = table.Column<double>(type: "REAL", nullable: false),
                    ThickMm = table.Column<double>(type: "REAL", nullable: false),
                    Amount = table.Column<int>(type: "INTEGER", nullable: false),
                    Filled = table.Column<int>(type: "INTEGER", nullable: false),
                    Opened = table.Column<int>(type: "INTEGER", nullable: true),
                    Counted = table.Column<int>(type: "INTEGER", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_JarRounds", x => x.Id);
                    table.ForeignKey(
                        name: "FK_JarRounds_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "JarGuesses",
                columns: table => new
                {
                    RoundId = table.Column<int>(type: "INTEGER", nullable: false),
                    ChildId = table.Column<int>(type: "INTEGER", nullable: false),
                    Guess = table.Column<int>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_JarGuesses", x => new { x.RoundId, x.ChildId });
                    table.ForeignKey(
                        name: "FK_JarGuesses_Children_ChildId",
                        column: x => x.ChildId,
                        principalTable: "Children",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "FK_JarGuesses_JarRounds_RoundId",
                        column: x => x.RoundId,
                        principalTable: "JarRounds",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "IX_JarGuesses_ChildId", table: "JarGuesses", column: "ChildId");

            migrationBuilder.CreateIndex(name: "IX_JarRounds_ClassId_Filled", table: "JarRounds", columns: new[] { "ClassId", "Filled" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "JarGuesses");

            migrationBuilder.DropTable(name: "JarRounds");

            migrationBuilder.DropColumn(name: "JarRestsUntil", table: "Classes");
        }
    }
}
