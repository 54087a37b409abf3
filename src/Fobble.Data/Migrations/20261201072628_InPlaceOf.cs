using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class InPlaceOf : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(name: "InPlaceOfId", table: "Memberships", type: "INTEGER", nullable: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "InPlaceOfId", table: "Memberships");
        }
    }
}
