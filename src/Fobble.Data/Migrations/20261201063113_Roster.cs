using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class Roster : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "OfficeKey", table: "Classes", type: "TEXT", nullable: true);

            migrationBuilder.AddColumn<string>(name: "OfficeKey", table: "Children", type: "TEXT", nullable: true);

            migrationBuilder.CreateTable(
                name: "Rosters",
                columns: table => new
                {
                    SchoolId = table.Column<int>(type: "INTEGER", nullable: false),
                    List = table.Column<string>(type: "TEXT", nullable: true),
                    FileName = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                    LeftSo = table.Column<string>(type: "TEXT", nullable: false),
                    Faults = table.Column<string>(type: "TEXT", nullable: false),
                    FaultyName = table.Column<string>(type: "TEXT", nullable: false),
                    FaultyAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Seen = table.Column<string>(type: "TEXT", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Rosters", x => x.SchoolId);
                    table.ForeignKey(
                        name: "FK_Rosters_Schools_SchoolId",
                        column: x => x.SchoolId,
                        principalTable: "Schools",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "Rosters");

            migrationBuilder.DropColumn(name: "OfficeKey", table: "Classes");

            migrationBuilder.DropColumn(name: "OfficeKey", table: "Children");
        }
    }
}
