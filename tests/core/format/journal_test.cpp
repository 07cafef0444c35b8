#include "core/format/journal.h"

#include <nlohmann/json.hpp>

#include "core/format/journal_line.h"
#include "core/format/object_json.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "demo_site/project.h"
#include "support/after_edit.h"
#include "support/file_limit.h"
#include "support/geometry.h"
#include "support/same.h"

namespace erdwerk::format {
namespace {

using document::Document;
using test::contentOf;
using test::expectSame;
using test::FileLimit;
using test::Folder;
using test::valueOf;

/// A few edits of every sort, undo among them.
std::vector<Document> edits(const Document& start) {
    std::vector<Document> out{start};
    const ObjectId set = start.all<objects::Points>().front();
    const ObjectId line = start.all<objects::Line>().front();
    out.push_back(test::afterEdit(out.back(), operations::setPointHeight({set, 5}, 400.0)));
    out.push_back(test::afterEdit(out.back(), operations::removePoints({{set, 520}})));
    out.push_back(out.back().without(line));
    out.push_back(out[2]);
    auto settings = out.back().settings();
    settings.display.unit = LengthUnit::UsSurveyFoot;
    out.push_back(out.back().withSettings(settings));
    out.push_back(test::afterEdit(out.back(),
                                  operations::addPoints("more \"points\"\n", {{"x", {1, 2}, {}, "ü", ""}})));
    return out;
}

/// A journal of all of them at `path`; how long it was after each.
std::vector<std::size_t> written(const std::string& path, const std::vector<Document>& documents) {
    auto journal = valueOf(Journal::start(path, "stamp", documents.front()));
    std::vector<std::size_t> ends{contentOf(path).size()};
    for (std::size_t i = 1; i < documents.size(); ++i) {
        EXPECT_TRUE(journal.append("step " + std::to_string(i), documents[i]));
        ends.push_back(contentOf(path).size());
    }
    return ends;
}

void rewrite(const std::string& path, const std::string& text) {
    std::ofstream(path, std::ios::binary) << text;
}

const Document& demo() {
    static const Document document = demo::project(demo::survey(7));
    return document;
}

TEST(Journal, ReplaysEveryChange) {
    const Folder folder;
    const auto documents = edits(demo());
    written(folder / "j", documents);
    const auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    EXPECT_EQ(replayed.kind, Replayed::Kind::Fits);
    EXPECT_FALSE(replayed.incomplete());
    ASSERT_EQ(replayed.documents.size(), documents.size() - 1);
    for (std::size_t i = 1; i < documents.size(); ++i) {
        expectSame(replayed.documents[i - 1], documents[i]);
        EXPECT_EQ(replayed.what[i - 1], "step " + std::to_string(i));
        EXPECT_EQ(replayed.documents[i - 1].nextId(), documents[i].nextId());
    }
}

TEST(Journal, MovingAPointWritesOneBlockOnly) {
    const Folder folder;
    std::vector<survey::SurveyPoint> many(20000, {"1", {0, 0}, 1.0, "GRND", ""});
    ObjectId set;
    const Document d = test::afterEdit({}, operations::addPoints("s", many), &set);
    auto journal = valueOf(Journal::start(folder / "j", "s", d));
    ASSERT_TRUE(journal.append("move", test::afterEdit(d, operations::movePoint({set, 9000}, {5, 5}))));
    EXPECT_LT(contentOf(folder / "j").size(), 40000U);
}

TEST(Journal, AChangeOfStyleWritesTheStyle) {
    const Folder folder;
    std::vector<geometry::Vec3> vertices;
    std::vector<std::uint32_t> corners;
    for (std::uint32_t i = 0; i <= 3000; ++i) {
        vertices.push_back({static_cast<double>(i), 0, 1});
        vertices.push_back({static_cast<double>(i), 1, 1});
        if (i > 0) corners.insert(corners.end(), {2 * i - 2, 2 * i, 2 * i - 1});
    }
    objects::SurfaceDefinition definition;
    definition.imported = std::make_shared<const terrain::Tin>(vertices, corners);
    ObjectId id;
    const Document d = Document{}.added(
        "Imported", objects::Surface{std::make_shared<const objects::SurfaceDefinition>(definition), {}, {}},
        &id);
    auto journal = valueOf(Journal::start(folder / "j", "s", d));
    const Document next =
        document::changed<objects::Surface>(d, id, [](objects::Surface& s) { s.style.interval = 0.25; });
    ASSERT_TRUE(journal.append("interval", next));
    EXPECT_LT(contentOf(folder / "j").size(), 2000U);
    const auto replayed = replay(folder / "j", {"s", {}, 0}, d);
    ASSERT_EQ(replayed.documents.size(), 1U);
    const auto* surface = replayed.documents[0].get<objects::Surface>(id);
    EXPECT_EQ(surface->style.interval, 0.25);
    EXPECT_EQ(surface->definition->imported, definition.imported);
}

TEST(Journal, ReplayEndsAtTheFirstBadLineWhereverABitFlips) {
    const Folder folder;
    const auto documents = edits(demo());
    const auto ends = written(folder / "j", documents);
    const std::string whole = contentOf(folder / "j");
    std::mt19937 random(20261126);
    for (int run = 0; run < 200; ++run) {
        std::string broken = whole;
        const std::size_t at = std::uniform_int_distribution<std::size_t>(0, whole.size() - 1)(random);
        broken[at] = static_cast<char>(broken[at] ^ (1 << (run % 8)));
        rewrite(folder / "j", broken);
        const auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
        const auto line =
            static_cast<std::size_t>(std::upper_bound(ends.begin(), ends.end(), at) - ends.begin());
        ASSERT_TRUE(replayed.incomplete()) << "run " << run << ", byte " << at;
        if (line == 0) {
            EXPECT_NE(replayed.kind, Replayed::Kind::Fits);
            EXPECT_TRUE(replayed.documents.empty());
            continue;
        }
        ASSERT_EQ(replayed.documents.size(), line - 1) << "run " << run << ", byte " << at;
        if (line > 1) expectSame(replayed.documents.back(), documents[line - 1]);
        EXPECT_GE(replayed.leftBehind(), 1U);
    }
}

TEST(Journal, ReplayOfACutFileBringsBackEveryWholeLine) {
    const Folder folder;
    const auto documents = edits(demo());
    const auto ends = written(folder / "j", documents);
    const std::string whole = contentOf(folder / "j");
    std::mt19937 random(7);
    for (int run = 0; run < 100; ++run) {
        const std::size_t size = std::uniform_int_distribution<std::size_t>(ends[0], whole.size())(random);
        rewrite(folder / "j", whole.substr(0, size));
        const auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
        // The end of a line may be missing: all of its content is there.
        std::size_t lines = 0;
        while (lines + 1 < ends.size() && ends[lines + 1] <= size + 1) ++lines;
        ASSERT_EQ(replayed.documents.size(), lines) << "cut at " << size;
    }
}

TEST(Journal, ALineThatIsMissingOrTwiceEndsTheReplay) {
    const Folder folder;
    const auto documents = edits(demo());
    const auto ends = written(folder / "j", documents);
    const std::string whole = contentOf(folder / "j");
    const auto line = [&](std::size_t i) { return whole.substr(ends[i - 1], ends[i] - ends[i - 1]); };
    rewrite(folder / "j", whole.substr(0, ends[1]) + line(3) + line(2));
    auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    EXPECT_EQ(replayed.documents.size(), 1U);
    EXPECT_THAT(replayed.problem, testing::HasSubstr("change 2 is missing"));
    ASSERT_EQ(replayed.entries.size(), 3U);
    EXPECT_EQ(replayed.entries[1].what, "step 3");
    EXPECT_FALSE(replayed.entries[2].broughtBack);
    rewrite(folder / "j", whole.substr(0, ends[2]) + line(2));
    replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    EXPECT_EQ(replayed.documents.size(), 2U);
    EXPECT_TRUE(replayed.incomplete());
}

TEST(Journal, OfAnotherSaveIsNotReplayedButCanBeLookedAt) {
    const Folder folder;
    const auto documents = edits(demo());
    written(folder / "j", documents);
    const auto other = replay(folder / "j", {"another", {}, 0}, {});
    EXPECT_EQ(other.kind, Replayed::Kind::Other);
    EXPECT_TRUE(other.documents.empty());
    EXPECT_EQ(other.leftBehind(), documents.size() - 1);
    EXPECT_EQ(other.entries.back().what, "step 6");
    EXPECT_FALSE(other.entries.back().when.empty());
    EXPECT_EQ(replay(folder / "none", {"another", {}, 0}, {}).kind, Replayed::Kind::None);
    rewrite(folder / "empty", "");
    EXPECT_EQ(replay(folder / "empty", {"another", {}, 0}, {}).kind, Replayed::Kind::Damaged);
}

TEST(Journal, ASaveThatHoldsAPartOfTheJournalTakesOnlyTheRest) {
    const Folder folder;
    const auto documents = edits(demo());
    written(folder / "j", documents);
    const auto replayed = replay(folder / "j", {"newer", "stamp", 4}, documents[4]);
    EXPECT_EQ(replayed.kind, Replayed::Kind::Fits);
    ASSERT_EQ(replayed.documents.size(), 2U);
    expectSame(replayed.documents.back(), documents.back());
    EXPECT_EQ(replayed.leftBehind(), 0U);
}

TEST(Journal, OfBeforeTheChecksumsIsStillRead) {
    const Folder folder;
    const auto documents = edits(demo());
    std::string text = "{\"erdwerk-journal\":1,\"continues\":\"stamp\"}\n";
    for (std::size_t i = 1; i < documents.size(); ++i) {
        auto line = changeToJson("old", i, documents[i - 1], documents[i]);
        for (const char* key : {"change", "when", "nextId"}) line.erase(key);
        text += line.dump() + "\n\n";  // an empty line stood where a journal was gone on with
    }
    rewrite(folder / "j", text);
    const auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    ASSERT_EQ(replayed.documents.size(), documents.size() - 1);
    expectSame(replayed.documents.back(), documents.back());
}

TEST(Journal, ResumingPutsAllThatWasBroughtBackIntoANewOne) {
    const Folder folder;
    const auto documents = edits(demo());
    const auto ends = written(folder / "j", documents);
    rewrite(folder / "j", contentOf(folder / "j").substr(0, ends[3] + 20));
    const auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    ASSERT_EQ(replayed.documents.size(), 3U);
    auto journal = valueOf(Journal::resume(folder / "j", "stamp", documents[0], replayed));
    EXPECT_EQ(journal.changes(), 3U);
    ASSERT_TRUE(journal.append("on", documents[5]));
    const auto again = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    EXPECT_FALSE(again.incomplete());
    ASSERT_EQ(again.documents.size(), 4U);
    expectSame(again.documents.back(), documents[5]);
    EXPECT_EQ(folder.entries(), 1U);
}

TEST(Journal, WhatAFullDiskRefusedIsInTheNextLineThatFits) {
    const Folder folder;
    const auto documents = edits(demo());
    auto journal = valueOf(Journal::start(folder / "j", "stamp", documents[0]));
    ASSERT_TRUE(journal.append("one", documents[1]));
    const auto size = contentOf(folder / "j").size();
    {
        const FileLimit limit(size + 30);
        const auto refused = journal.append("two", documents[2]);
        ASSERT_FALSE(refused);
        EXPECT_THAT(refused.error().text, testing::HasSubstr("edits are not being kept"));
        EXPECT_FALSE(journal.append("three", documents[3]));
        EXPECT_EQ(contentOf(folder / "j").size(), size);
    }
    ASSERT_TRUE(journal.append("four", documents[5]));
    const auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    EXPECT_FALSE(replayed.incomplete());
    ASSERT_EQ(replayed.documents.size(), 2U);
    expectSame(replayed.documents.back(), documents[5]);
}

TEST(Journal, ThatSomebodyRemovedIsWrittenAgainWithAllItHeld) {
    const Folder folder;
    const auto documents = edits(demo());
    auto journal = valueOf(Journal::start(folder / "j", "stamp", documents[0]));
    ASSERT_TRUE(journal.append("one", documents[1]));
    std::filesystem::remove(folder / "j");
    ASSERT_TRUE(journal.append("two", documents[2]));
    const auto replayed = replay(folder / "j", {"stamp", {}, 0}, documents[0]);
    EXPECT_FALSE(replayed.incomplete());
    ASSERT_FALSE(replayed.documents.empty());
    expectSame(replayed.documents.back(), documents[2]);
}

}  // namespace
}  // namespace erdwerk::format
