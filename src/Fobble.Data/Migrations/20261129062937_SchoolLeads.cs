using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class SchoolLeads : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(name: "ArchivedOn", table: "Classes", type: "INTEGER", nullable: true);

            migrationBuilder.CreateTable(
                name: "SchoolLeads",
                columns: table => new
                {
                    SchoolId = table.Column<int>(type: "INTEGER", nullable: false),
                    AdultId = table.Column<int>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SchoolLeads", x => new { x.SchoolId, x.AdultId });
                    table.ForeignKey(
                        name: "FK_SchoolLeads_AspNetUsers_AdultId",
                        column: x => x.AdultId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "FK_SchoolLeads_Schools_SchoolId",
                        column: x => x.SchoolId,
                        principalTable: "Schools",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "IX_SchoolLeads_AdultId", table: "SchoolLeads", column: "AdultId");

            // Until now the lead of any class changed what is the school's. It stays with the lead of the first one, who began the school.
            migrationBuilder.Sql(
                """
                INSERT INTO SchoolLeads (SchoolId, AdultId)
                SELECT c.SchoolId, m.AdultId
                FROM Memberships m JOIN Classes c ON c.Id = m.ClassId
                WHERE m.Role = 0 AND c.Id = (SELECT MIN(o.Id) FROM Classes o JOIN Memberships p ON p.ClassId = o.Id AND p.Role = 0 WHERE o.SchoolId = c.SchoolId);
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "SchoolLeads");

            migrationBuilder.DropColumn(name: "ArchivedOn", table: "Classes");
        }
    }
}
