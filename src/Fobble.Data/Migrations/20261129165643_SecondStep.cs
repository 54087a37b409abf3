using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class SecondStep : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<string>(name: "SecondSecret", table: "AspNetUsers", type: "TEXT", nullable: true);

            migrationBuilder.AddColumn<long>(name: "SecondUsedUpTo", table: "AspNetUsers", type: "INTEGER", nullable: false, defaultValue: 0L);

            migrationBuilder.CreateTable(
                name: "SpareCodes",
                columns: table => new
                {
                    AdultId = table.Column<int>(type: "INTEGER", nullable: false),
                    Hash = table.Column<string>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_SpareCodes", x => new { x.AdultId, x.Hash });
                    table.ForeignKey(
                        name: "FK_SpareCodes_AspNetUsers_AdultId",
                        column: x => x.AdultId,
                        principalTable: "AspNetUsers",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            // From now on a photo goes with the observation that is withdrawn.
            migrationBuilder.Sql("DELETE FROM Photos WHERE ObservationId IN (SELECT ObservationId FROM Withdrawals)");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "SpareCodes");

            migrationBuilder.DropColumn(name: "SecondSecret", table: "AspNetUsers");

            migrationBuilder.DropColumn(name: "SecondUsedUpTo", table: "AspNetUsers");
        }
    }
}
