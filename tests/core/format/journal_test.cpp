#include "core/format/journal.h"

#include <nlohmann/json.hpp>

#include "core/document/edit.h"
#include "core/format/object_json.h"
#include "demo_site/project.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using document::Document;
using test::Folder;
using test::valueOf;

void expectSame(const Document& a, const Document& b) {
    ASSERT_EQ(a.objects().size(), b.objects().size());
    EXPECT_EQ(a.settings(), b.settings());
    for (const auto& [id, object] : a.objects()) EXPECT_EQ(toJson(*object), toJson(*b.find(id)));
}

/// A few edits of every sort, undo among them.
std::vector<Document> edits(const Document& start) {
    std::vector<Document> out{start};
    const ObjectId set = start.all<document::Points>().front();
    const ObjectId line = start.all<document::Line>().front();
    out.push_back(document::setPointHeight(out.back(), {set, 5}, 400.0));
    out.push_back(document::removePoints(out.back(), {{set, 520}}));
    out.push_back(out.back().without(line));
    out.push_back(out[2]);
    auto settings = out.back().settings();
    settings.display.unit = LengthUnit::UsSurveyFoot;
    out.push_back(out.back().withSettings(settings));
    out.push_back(document::addPoints(out.back(), "more \"points\"\n", {{"x", {1, 2}, {}, "ü", ""}}));
    return out;
}

TEST(Journal, ReplaysEveryChange) {
    const Folder folder;
    const auto documents = edits(demo::project(demo::survey(7)));
    auto journal = valueOf(Journal::start(folder / "j", "stamp"));
    for (std::size_t i = 1; i < documents.size(); ++i) {
        ASSERT_TRUE(journal.append("step " + std::to_string(i), documents[i - 1], documents[i]));
        const auto replayed = valueOf(replay(folder / "j", "stamp", documents[0]));
        expectSame(replayed.document, documents[i]);
        EXPECT_EQ(replayed.changes, i);
    }
}

TEST(Journal, MovingAPointWritesOneBlockOnly) {
    const Folder folder;
    std::vector<survey::SurveyPoint> many(20000, {"1", {0, 0}, 1.0, "GRND", ""});
    ObjectId set;
    const Document d = document::addPoints({}, "s", many, &set);
    auto journal = valueOf(Journal::start(folder / "j", "s"));
    ASSERT_TRUE(journal.append("move", d, document::movePoint(d, {set, 9000}, {5, 5})));
    EXPECT_LT(test::contentOf(folder / "j").size(), 40000U);
}

TEST(Journal, ACutOffLineIsIgnoredAndWritingGoesOn) {
    const Folder folder;
    const auto documents = edits(demo::project(demo::survey(7)));
    {
        auto journal = valueOf(Journal::start(folder / "j", "s"));
        ASSERT_TRUE(journal.append("one", documents[0], documents[1]));
        ASSERT_TRUE(journal.append("two", documents[1], documents[2]));
    }
    const std::string whole = test::contentOf(folder / "j");
    for (const std::size_t cut : {1U, 10U, 2000U}) {
        std::ofstream(folder / "j", std::ios::binary) << whole.substr(0, whole.size() - cut);
        const auto replayed = valueOf(replay(folder / "j", "s", documents[0]));
        expectSame(replayed.document, cut == 1 ? documents[2] : documents[1]);
    }
    auto journal = valueOf(Journal::resume(folder / "j"));
    ASSERT_TRUE(journal.append("three", documents[1], documents[3]));
    expectSame(valueOf(replay(folder / "j", "s", documents[0])).document, documents[3]);
}

TEST(Journal, OfAnotherSaveIsNotReplayed) {
    const Folder folder;
    valueOf(Journal::start(folder / "j", "one"));
    EXPECT_EQ(replay(folder / "j", "two", {}).error().code, ErrorCode::NotFound);
    EXPECT_EQ(replay(folder / "none", "two", {}).error().code, ErrorCode::NotFound);
    const auto broken = folder.file(
        "b", "{\"erdwerk-journal\":1,\"continues\":\"x\"}\n{\"set\":[{\"kind\":\"line\"}],\"removed\":[]}\n");
    const auto r = replay(broken, "x", {});
    ASSERT_FALSE(r);
    EXPECT_EQ(r.error().line, 2);
}

}  // namespace
}  // namespace erdwerk::format
