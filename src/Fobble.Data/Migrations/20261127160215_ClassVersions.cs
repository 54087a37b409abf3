using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class ClassVersions : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // First, since it ends the transaction; every connection that opens later has them on again.
            migrationBuilder.Sql("PRAGMA foreign_keys = 0", suppressTransaction: true);

            migrationBuilder.AddColumn<long>(name: "ContentVersion", table: "Schools", type: "INTEGER", nullable: false, defaultValue: 0L);

            migrationBuilder.AddColumn<string>(name: "Locale", table: "Schools", type: "TEXT", nullable: false, defaultValue: "en-GB");

            migrationBuilder.AddColumn<string>(name: "TimeZone", table: "Schools", type: "TEXT", nullable: false, defaultValue: "");

            migrationBuilder.AddColumn<long>(name: "Version", table: "GroupCycles", type: "INTEGER", nullable: false, defaultValue: 0L);

            migrationBuilder.CreateTable(
                name: "ClassVersions",
                columns: table => new
                {
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    Groups = table.Column<long>(type: "INTEGER", nullable: false),
                    Week = table.Column<long>(type: "INTEGER", nullable: false),
                    Calendar = table.Column<long>(type: "INTEGER", nullable: false),
                    Record = table.Column<long>(type: "INTEGER", nullable: false),
                    LastSeen = table.Column<long>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ClassVersions", x => x.ClassId);
                    table.ForeignKey(
                        name: "FK_ClassVersions_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.GiveObservationsSequence();
            migrationBuilder.AddVersionTriggers();
            migrationBuilder.AllowOneAtATime();
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            throw new NotSupportedException("There is no way back from numbered observations: go back by a backup.");
    }
}
