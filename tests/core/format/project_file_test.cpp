#include "core/format/project_file.h"

#include <SQLiteCpp/SQLiteCpp.h>
#include <sys/wait.h>
#include <unistd.h>

#include <nlohmann/json.hpp>

#include "core/format/object_json.h"
#include "core/format/vector_file.h"
#include "core/operations/edit.h"
#include "demo_site/project.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::valueOf;

derive::Derived demo() {
    return valueOf(derive::evaluate(demo::project(demo::survey(7))));
}

TEST(ProjectFile, ComesBackObjectForObject) {
    const Folder folder;
    const auto derived = demo();
    const auto stamp = valueOf(saveProject(folder / "q.erdwerk", derived));
    const auto opened = valueOf(openProject(folder / "q.erdwerk"));
    EXPECT_EQ(opened.mark.stamp, stamp);
    EXPECT_EQ(opened.document.settings(), derived.document.settings());
    EXPECT_EQ(opened.document.nextId(), derived.document.nextId());
    ASSERT_EQ(opened.document.objects().size(), derived.document.objects().size());
    for (const auto& [id, object] : derived.document.objects())
        EXPECT_EQ(toJson(*object), toJson(*opened.document.find(id)));
    EXPECT_EQ(folder.entries(), 1U);
}

TEST(ProjectFile, IsAGeoPackageWithOrdinaryLayers) {
    const Folder folder;
    valueOf(saveProject(folder / "q.erdwerk", demo()));
    SQLite::Database db(folder / "q.erdwerk");
    EXPECT_EQ(db.execAndGet("PRAGMA application_id").getInt(), 0x47504B47);
    EXPECT_EQ(db.execAndGet("PRAGMA integrity_check").getString(), "ok");
    EXPECT_EQ(db.execAndGet("SELECT count(*) FROM gpkg_contents WHERE data_type = 'features'").getInt(), 6);
    EXPECT_EQ(db.execAndGet("SELECT count(*) FROM gpkg_contents WHERE data_type = 'attributes'").getInt(), 2);
    const auto content = valueOf(readVectorFile(folder / "q.erdwerk"));
    EXPECT_GT(content.points.size(), 500U);
    EXPECT_GT(content.lines.size(), 1000U);
}

TEST(ProjectFile, RefusesNewerDamagedAndForeignFiles) {
    const Folder folder;
    const auto path = folder / "q.erdwerk";
    valueOf(saveProject(path, demo()));
    const std::string good = test::contentOf(path);
    { SQLite::Database(path, SQLite::OPEN_READWRITE).exec("UPDATE erdwerk_project SET version = 99"); }
    const std::string newer = test::contentOf(path);
    EXPECT_EQ(openProject(path).error().code, ErrorCode::Unsupported);
    EXPECT_EQ(test::contentOf(path), newer);
    std::ofstream(path, std::ios::binary) << good;
    {
        SQLite::Database(path, SQLite::OPEN_READWRITE)
            .exec(
                "UPDATE erdwerk_objects SET definition = replace(definition, '\"rule\":\"grade\"', "
                "'\"rule\":\"magic\"')");
    }
    EXPECT_THAT(openProject(path).error().text,
                testing::HasSubstr("'Dome Terrace' is damaged: unknown height rule 'magic'"));
    EXPECT_FALSE(openProject(folder.file("text.erdwerk", "hello")));
    EXPECT_FALSE(openProject(folder.file("empty.erdwerk", "")));
    EXPECT_FALSE(openProject(folder / "none.erdwerk"));
    for (const std::size_t n : {100U, 5000U, 60000U})
        EXPECT_FALSE(openProject(folder.file("cut.erdwerk", good.substr(0, n)))) << n;
}

TEST(ProjectFile, SavingWhereItIsForbiddenNamesTheFile) {
    const auto saved = saveProject("/proc/q.erdwerk", demo());
    ASSERT_FALSE(saved);
    EXPECT_EQ(saved.error().file, "/proc/q.erdwerk");
}

/// A child saves again and again and is killed at a random moment: what is there afterwards is a whole
/// project.
TEST(ProjectFile, AKilledSaveLeavesAWholeFile) {
    const Folder folder;
    const auto path = folder / "q.erdwerk";
    const auto derived = demo();
    valueOf(saveProject(path, derived));
    std::mt19937 random(4);
    for (int round = 0; round < 8; ++round) {
        const pid_t child = ::fork();
        ASSERT_GE(child, 0);
        if (child == 0) {
            for (;;) (void)saveProject(path, derived);
        }
        ::usleep(static_cast<useconds_t>(20'000 + random() % 120'000));
        ::kill(child, SIGKILL);
        ::waitpid(child, nullptr, 0);
        const auto opened = openProject(path);
        ASSERT_TRUE(opened) << "round " << round << ": " << opened.error().message();
        EXPECT_EQ(opened->document.objects().size(), derived.document.objects().size());
    }
}

}  // namespace
}  // namespace erdwerk::format
