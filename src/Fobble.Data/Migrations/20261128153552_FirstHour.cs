using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class FirstHour : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<bool>(name: "FirstHourOver", table: "Classes", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.AddColumn<string>(name: "StepsLater", table: "Classes", type: "TEXT", nullable: false, defaultValue: "[]");

            migrationBuilder.AddColumn<string>(name: "StepsSettled", table: "Classes", type: "TEXT", nullable: false, defaultValue: "[]");

            // Who has groups knows the way.
            migrationBuilder.Sql("UPDATE Classes SET FirstHourOver = 1 WHERE Id IN (SELECT ClassId FROM GroupSessions)");
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "FirstHourOver", table: "Classes");

            migrationBuilder.DropColumn(name: "StepsLater", table: "Classes");

            migrationBuilder.DropColumn(name: "StepsSettled", table: "Classes");
        }
    }
}
