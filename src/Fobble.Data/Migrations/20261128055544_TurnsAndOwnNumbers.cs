using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class TurnsAndOwnNumbers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(name: "Stay", table: "GroupSettings", type: "INTEGER", nullable: false, defaultValue: 100);

            migrationBuilder.AddColumn<int>(name: "TurnsAWeek", table: "GroupSettings", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "Fading", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "Looks", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<double>(name: "OwnGuess", table: "Classes", type: "REAL", nullable: true);

            migrationBuilder.AddColumn<double>(name: "OwnLearning", table: "Classes", type: "REAL", nullable: true);

            migrationBuilder.AddColumn<int>(name: "OwnSince", table: "Classes", type: "INTEGER", nullable: true);

            migrationBuilder.AddColumn<double>(name: "OwnSlip", table: "Classes", type: "REAL", nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "Stay", table: "GroupSettings");

            migrationBuilder.DropColumn(name: "TurnsAWeek", table: "GroupSettings");

            migrationBuilder.DropColumn(name: "Fading", table: "Classes");

            migrationBuilder.DropColumn(name: "Looks", table: "Classes");

            migrationBuilder.DropColumn(name: "OwnGuess", table: "Classes");

            migrationBuilder.DropColumn(name: "OwnLearning", table: "Classes");

            migrationBuilder.DropColumn(name: "OwnSince", table: "Classes");

            migrationBuilder.DropColumn(name: "OwnSlip", table: "Classes");
        }
    }
}
