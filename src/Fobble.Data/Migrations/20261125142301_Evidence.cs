using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace Fobble.Data.Migrations
{
    /// <inheritdoc />
    public partial class Evidence : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(name: "CheckId", table: "Observations", type: "INTEGER", nullable: true);

            migrationBuilder.AddColumn<string>(name: "SeenBy", table: "Observations", type: "TEXT", nullable: true);

            migrationBuilder.AddColumn<bool>(name: "PhotosAllowed", table: "Children", type: "INTEGER", nullable: false, defaultValue: false);

            migrationBuilder.CreateTable(
                name: "BaselineChecks",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false).Annotation("Sqlite:Autoincrement", true),
                    ClassId = table.Column<int>(type: "INTEGER", nullable: false),
                    ChildId = table.Column<int>(type: "INTEGER", nullable: false),
                    Strand = table.Column<string>(type: "TEXT", nullable: true),
                    StartedAt = table.Column<long>(type: "INTEGER", nullable: false),
                    StartedBy = table.Column<int>(type: "INTEGER", nullable: false),
                    EndedAt = table.Column<long>(type: "INTEGER", nullable: true),
                    Inferred = table.Column<string>(type: "TEXT", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_BaselineChecks", x => x.Id);
                    table.ForeignKey(
                        name: "FK_BaselineChecks_Children_ChildId",
                        column: x => x.ChildId,
                        principalTable: "Children",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "FK_BaselineChecks_Classes_ClassId",
                        column: x => x.ClassId,
                        principalTable: "Classes",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "Photos",
                columns: table => new
                {
                    ObservationId = table.Column<Guid>(type: "TEXT", nullable: false),
                    Jpeg = table.Column<byte[]>(type: "BLOB", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Photos", x => x.ObservationId);
                    table.ForeignKey(
                        name: "FK_Photos_Observations_ObservationId",
                        column: x => x.ObservationId,
                        principalTable: "Observations",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "CheckOverride",
                columns: table => new
                {
                    CheckId = table.Column<int>(type: "INTEGER", nullable: false),
                    Skill = table.Column<string>(type: "TEXT", nullable: false),
                    Has = table.Column<bool>(type: "INTEGER", nullable: false),
                    AdultId = table.Column<int>(type: "INTEGER", nullable: false),
                    At = table.Column<long>(type: "INTEGER", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_CheckOverride", x => new { x.CheckId, x.Skill });
                    table.ForeignKey(
                        name: "FK_CheckOverride_BaselineChecks_CheckId",
                        column: x => x.CheckId,
                        principalTable: "BaselineChecks",
                        principalColumn: "Id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "IX_Observations_CheckId", table: "Observations", column: "CheckId");

            migrationBuilder.CreateIndex(name: "IX_BaselineChecks_ChildId", table: "BaselineChecks", column: "ChildId");

            migrationBuilder.CreateIndex(name: "IX_BaselineChecks_ClassId_ChildId", table: "BaselineChecks", columns: new[] { "ClassId", "ChildId" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "CheckOverride");

            migrationBuilder.DropTable(name: "Photos");

            migrationBuilder.DropTable(name: "BaselineChecks");

            migrationBuilder.DropIndex(name: "IX_Observations_CheckId", table: "Observations");

            migrationBuilder.DropColumn(name: "CheckId", table: "Observations");

            migrationBuilder.DropColumn(name: "SeenBy", table: "Observations");

            migrationBuilder.DropColumn(name: "PhotosAllowed", table: "Children");
        }
    }
}
