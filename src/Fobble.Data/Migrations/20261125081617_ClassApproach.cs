using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class ClassApproach : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(name: "FewerWord", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "FrameDirection", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "FrameFill", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "OnesWord", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "SentenceWord", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);

            migrationBuilder.AddColumn<int>(name: "TakeWord", table: "Classes", type: "INTEGER", nullable: false, defaultValue: 0);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(name: "FewerWord", table: "Classes");

            migrationBuilder.DropColumn(name: "FrameDirection", table: "Classes");

            migrationBuilder.DropColumn(name: "FrameFill", table: "Classes");

            migrationBuilder.DropColumn(name: "OnesWord", table: "Classes");

            migrationBuilder.DropColumn(name: "SentenceWord", table: "Classes");

            migrationBuilder.DropColumn(name: "TakeWord", table: "Classes");
        }
    }
}
