#include "core/format/keeper.h"

#include <sys/wait.h>
#include <unistd.h>

#include <nlohmann/json.hpp>

#include "core/format/output.h"
#include "core/format/project_file.h"
#include "core/objects/group.h"
#include "core/operations/objects.h"
#include "demo_site/project.h"
#include "support/after_edit.h"
#include "support/geometry.h"
#include "support/same.h"

namespace erdwerk::format {
namespace {

using document::Document;
using test::contentOf;
using test::expectSame;
using test::Folder;
using test::valueOf;

class KeeperTest : public testing::Test {
protected:
    KeeperTest() {
        for (int i = 0; i < 4; ++i)
            document_ = document_.added("Group " + std::to_string(i), objects::Group{});
        valueOf(saveProject(path_, valueOf(derive::evaluate(document_))));
    }
    Document edited(int n) const {
        return test::afterEdit(document_, operations::rename(document_.all<objects::Group>().front(),
                                                             "edited " + std::to_string(n)));
    }
    /// A process that makes some edits and is killed.
    void crashAfter(int edits) const {
        const pid_t child = ::fork();
        if (child == 0) {
            Keeper keeper;
            if (!keeper.open(path_)) ::_exit(1);
            for (int i = 1; i <= edits; ++i) keeper.keep("edit " + std::to_string(i), edited(i));
            ::kill(::getpid(), SIGKILL);
        }
        int status = 0;
        ::waitpid(child, &status, 0);
        ASSERT_TRUE(WIFSIGNALED(status));
    }

    Folder folder_;
    std::string path_ = folder_ / "site.erdwerk";
    Document document_;
};

TEST_F(KeeperTest, BringsBackWhatAKilledProcessHadKept) {
    crashAfter(3);
    Keeper keeper;
    const auto opened = valueOf(keeper.open(path_));
    EXPECT_EQ(keeper.state(), Keeper::State::Kept);
    ASSERT_EQ(opened.recovery.documents.size(), 3U);
    EXPECT_EQ(opened.recovery.what.back(), "edit 3");
    EXPECT_TRUE(opened.recovery.problem.empty());
    expectSame(opened.recovery.documents.back(), edited(3));
    // Killed again without another edit: still all there.
    keeper.close(false);
    EXPECT_EQ(valueOf(keeper.open(path_)).recovery.documents.size(), 3U);
}

TEST_F(KeeperTest, SixtyKillsLoseNothing) {
    for (int round = 1; round <= 60; ++round) {
        const pid_t child = ::fork();
        if (child == 0) {
            Keeper keeper;
            auto opened = keeper.open(path_);
            if (!opened) ::_exit(1);
            for (int i = 0; i < round % 4 + 1; ++i) keeper.keep("edit", edited(round * 10 + i));
            ::kill(::getpid(), SIGKILL);
        }
        int status = 0;
        ::waitpid(child, &status, 0);
        const auto project = valueOf(openProjectWithJournal(path_, true));
        expectSame(project.document, edited(round * 10 + round % 4));
        EXPECT_TRUE(project.journalProblem.empty());
    }
}

TEST_F(KeeperTest, AJournalThatDoesNotFitIsKeptUnderANameThatIsTold) {
    crashAfter(2);
    const std::string journal = contentOf(journalPath(path_));
    valueOf(saveProject(path_, valueOf(derive::evaluate(edited(9)))));  // by something else
    Keeper keeper;
    const auto opened = valueOf(keeper.open(path_));
    EXPECT_TRUE(opened.recovery.documents.empty());
    EXPECT_THAT(opened.recovery.problem, testing::HasSubstr("another save"));
    ASSERT_EQ(opened.recovery.entries.size(), 2U);
    EXPECT_EQ(opened.recovery.entries[0].what, "edit 1");
    ASSERT_FALSE(opened.recovery.keptAs.empty());
    EXPECT_EQ(contentOf(opened.recovery.keptAs), journal);
    // A second one does not take its place.
    keeper.close(true);
    std::ofstream(journalPath(path_)) << "rubbish\n";
    const auto again = valueOf(keeper.open(path_));
    EXPECT_NE(again.recovery.keptAs, opened.recovery.keptAs);
    EXPECT_EQ(contentOf(again.recovery.keptAs), "rubbish\n");
}

TEST_F(KeeperTest, TwoHundredDamagedJournalsAlwaysOpenAndNothingIsThrownAway) {
    crashAfter(6);
    const std::string whole = contentOf(journalPath(path_));
    std::mt19937 random(4);
    for (int run = 0; run < 200; ++run) {
        std::string broken = whole;
        const auto at = std::uniform_int_distribution<std::size_t>(0, whole.size() - 1)(random);
        switch (run % 4) {
            case 0:
                broken[at] = static_cast<char>(broken[at] ^ (1 << (run % 8)));
                break;
            case 1:
                broken.resize(at);
                break;
            case 2:
                broken.erase(at, 40);
                break;
            default:
                broken.insert(at, "\n\xff\0{\"crc\"", 9);
        }
        std::ofstream(journalPath(path_), std::ios::binary) << broken;
        Keeper keeper;
        const auto opened = valueOf(keeper.open(path_));
        ASSERT_EQ(keeper.state(), Keeper::State::Kept) << run;
        const auto back = opened.recovery.documents.size();
        if (back > 0) expectSame(opened.recovery.documents.back(), edited(static_cast<int>(back)));
        if (opened.recovery.problem.empty()) continue;
        ASSERT_FALSE(opened.recovery.keptAs.empty()) << run;
        EXPECT_EQ(contentOf(opened.recovery.keptAs), broken);
        // Edits after it are kept like any others.
        keeper.keep("more", edited(50));
        keeper.close(false);
        expectSame(valueOf(openProjectWithJournal(path_, true)).document, edited(50));
        std::filesystem::remove(opened.recovery.keptAs);
    }
}

TEST_F(KeeperTest, TheSecondOneOpensToLookAtAndTakesOverWhenTheFirstIsGone) {
    Keeper first;
    valueOf(first.open(path_));
    first.keep("one", edited(1));
    const std::string journal = contentOf(journalPath(path_));
    Keeper second;
    const auto opened = valueOf(second.open(path_));
    EXPECT_EQ(second.state(), Keeper::State::ReadOnly);
    EXPECT_THAT(second.reason(), testing::HasSubstr("is open: "));
    EXPECT_EQ(opened.recovery.documents.size(), 1U);
    second.keep("mine", edited(2));
    EXPECT_EQ(contentOf(journalPath(path_)), journal);
    EXPECT_EQ(second.prepareSave(path_).error().code, ErrorCode::Busy);
    second.beat();
    EXPECT_FALSE(second.canTakeOver());
    first.keep("two", edited(3));
    first.close(false);
    second.beat();
    EXPECT_TRUE(second.canTakeOver());
    const auto taken = valueOf(second.open(path_));
    EXPECT_EQ(second.state(), Keeper::State::Kept);
    expectSame(taken.recovery.documents.back(), edited(3));
}

TEST_F(KeeperTest, AHolderOnAnotherMachineCountsWhileItTouchesItsFile) {
    const auto lock = [&](double age) {
        nlohmann::json content{{"token", "x"}, {"host", "moor"}, {"boot", "b"},     {"pid", 1},
                               {"start", "1"}, {"user", "anna"}, {"since", "12:04"}};
        std::ofstream(lockPath(path_)) << content.dump();
        std::filesystem::last_write_time(lockPath(path_), std::filesystem::file_time_type::clock::now() -
                                                              std::chrono::seconds(static_cast<int>(age)));
    };
    lock(60);
    Keeper keeper;
    valueOf(keeper.open(path_));
    EXPECT_EQ(keeper.state(), Keeper::State::ReadOnly);
    EXPECT_THAT(keeper.reason(), testing::HasSubstr("anna on moor since 12:04"));
    lock(ProjectLock::patienceSeconds + 10);
    keeper.beat();
    EXPECT_TRUE(keeper.canTakeOver());
    valueOf(keeper.open(path_));
    EXPECT_EQ(keeper.state(), Keeper::State::Kept);
    // The other one comes back from sleep and sees that it is no longer the holder: so does this one.
    lock(0);
    keeper.beat();
    EXPECT_EQ(keeper.state(), Keeper::State::ReadOnly);
    EXPECT_THAT(keeper.reason(), testing::HasSubstr("taken over by anna"));
}

TEST_F(KeeperTest, DiscardingAndOpeningAgainBringsNothingBack) {
    Keeper keeper;
    valueOf(keeper.open(path_));
    keeper.keep("one", edited(1));
    const auto opened = valueOf(keeper.open(path_));
    EXPECT_TRUE(opened.recovery.documents.empty());
    keeper.keep("two", edited(2));
    keeper.close(false);
    const auto project = valueOf(openProjectWithJournal(path_, true));
    EXPECT_EQ(project.unsaved, 1U);
    expectSame(project.document, edited(2));
}

TEST_F(KeeperTest, AFileThatDoesNotOpenLeavesTheOpenProjectAsItIs) {
    Keeper keeper;
    valueOf(keeper.open(path_));
    keeper.keep("one", edited(1));
    EXPECT_FALSE(keeper.open(folder_.file("other.erdwerk", "not a database")));
    EXPECT_EQ(keeper.path(), canonicalPath(path_));
    keeper.keep("two", edited(2));
    keeper.close(false);
    EXPECT_EQ(valueOf(openProjectWithJournal(path_, false)).unsaved, 2U);
}

TEST_F(KeeperTest, WhatIsEditedWhileItSavesIsNotTakenForSaved) {
    Keeper keeper;
    valueOf(keeper.open(path_));
    keeper.keep("one", edited(1));
    ASSERT_TRUE(keeper.prepareSave(path_));
    const auto mark = keeper.markForSave(path_);
    EXPECT_EQ(mark.heldChanges, 1U);
    keeper.keep("while saving", edited(2));
    const auto stamp = valueOf(saveProject(path_, valueOf(derive::evaluate(edited(1))), mark));
    // Killed just here: the file holds one, the journal both.
    const auto between = valueOf(openProjectWithJournal(path_, true));
    EXPECT_EQ(between.unsaved, 1U);
    EXPECT_EQ(between.lastUnsaved, "while saving");
    expectSame(between.document, edited(2));
    keeper.saved(path_, stamp, edited(1), edited(2));
    keeper.keep("later", edited(3));
    keeper.close(false);
    const auto after = valueOf(openProjectWithJournal(path_, true));
    EXPECT_EQ(after.unsaved, 2U);
    expectSame(after.document, edited(3));
}

TEST_F(KeeperTest, SavingUnderAnotherNameMovesLockAndJournal) {
    Keeper keeper;
    valueOf(keeper.open(path_));
    keeper.keep("one", edited(1));
    const std::string other = folder_ / "other.erdwerk";
    ASSERT_TRUE(keeper.prepareSave(other));
    const auto stamp =
        valueOf(saveProject(other, valueOf(derive::evaluate(edited(1))), keeper.markForSave(other)));
    keeper.saved(other, stamp, edited(1), edited(1));
    EXPECT_FALSE(std::filesystem::exists(journalPath(path_)));
    EXPECT_FALSE(lockHolder(path_));
    EXPECT_TRUE(lockHolder(other));
    Keeper elsewhere;
    valueOf(elsewhere.open(path_));
    EXPECT_EQ(elsewhere.state(), Keeper::State::Kept);
    EXPECT_EQ(elsewhere.prepareSave(other).error().code, ErrorCode::Busy);
}

TEST_F(KeeperTest, AFolderThatCannotBeWrittenIsSaidAtOnce) {
    if (::geteuid() == 0) GTEST_SKIP() << "root may write everywhere";
    std::filesystem::permissions(std::filesystem::path(path_).parent_path(), std::filesystem::perms(0555));
    Keeper keeper;
    valueOf(keeper.open(path_));
    EXPECT_EQ(keeper.state(), Keeper::State::NotKept);
    EXPECT_THAT(keeper.reason(), testing::HasSubstr("writing is not allowed"));
    std::filesystem::permissions(std::filesystem::path(path_).parent_path(), std::filesystem::perms(0755));
    keeper.keep("one", edited(1));
    EXPECT_EQ(keeper.state(), Keeper::State::Kept);
}

TEST_F(KeeperTest, AJournalThatCannotBeMadeIsSaidAndTriedAgain) {
    // A folder stands where the journal would be made anew: as root too, it cannot be written.
    std::filesystem::create_directory(journalPath(path_) + ".new");
    Keeper keeper;
    valueOf(keeper.open(path_));
    EXPECT_EQ(keeper.state(), Keeper::State::NotKept);
    EXPECT_FALSE(keeper.reason().empty());
    keeper.keep("one", edited(1));
    EXPECT_EQ(keeper.state(), Keeper::State::NotKept);
    std::filesystem::remove(journalPath(path_) + ".new");
    keeper.keep("two", edited(2));
    EXPECT_EQ(keeper.state(), Keeper::State::Kept);
    keeper.close(false);
    expectSame(valueOf(openProjectWithJournal(path_, true)).document, edited(2));
}

TEST_F(KeeperTest, WhatAKilledSaveLeftIsClearedAwayAtTheNextStart) {
    const pid_t child = ::fork();
    if (child == 0)
        (void)replaceFile(path_, [](const std::string& temporary) -> Result<void> {
            std::ofstream(temporary) << "half";
            std::ofstream(temporary + ".gpkg") << "half";
            ::kill(::getpid(), SIGKILL);
            return {};
        });
    int status = 0;
    ::waitpid(child, &status, 0);
    EXPECT_EQ(folder_.entries(), 3U);
    Keeper keeper;
    valueOf(keeper.open(path_));
    EXPECT_EQ(folder_.entries(), 3U);  // project, journal, lock
    keeper.close(true);
    EXPECT_EQ(folder_.entries(), 1U);
}

TEST_F(KeeperTest, AnUnnamedProjectIsFoundWhenItsProcessIsGone) {
    const std::string base = folder_ / "unnamed-1";
    const pid_t child = ::fork();
    if (child == 0) {
        Keeper keeper;
        keeper.startUnnamed(base, document_);
        keeper.keep("one", edited(1));
        ::kill(::getpid(), SIGKILL);
    }
    int status = 0;
    ::waitpid(child, &status, 0);
    Keeper mine;
    mine.startUnnamed(folder_ / "unnamed-2", document_);
    EXPECT_THAT(Keeper::lostIn(std::filesystem::path(base).parent_path()), testing::ElementsAre(base));
    const auto lost = Keeper::readLost(base);
    ASSERT_EQ(lost.documents.size(), 2U);
    expectSame(lost.documents.back(), edited(1));
    Keeper::dropLost(base);
    EXPECT_TRUE(Keeper::lostIn(std::filesystem::path(base).parent_path()).empty());
}

}  // namespace
}  // namespace erdwerk::format
