// Edits that are worked out on a worker: their order, what is asked for meanwhile, stopping them.

#include <QSignalSpy>
#include <atomic>
#include <thread>

#include "app/base/open_project.h"
#include "core/format/keeper.h"
#include "core/objects/group.h"
#include "core/objects/points.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "support/after_edit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using document::Document;
using document::Edited;

class LongEdits : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        ObjectId made;
        Document d = test::afterEdit({}, operations::addPoints("A", {{"1", {0, 0}, 1.0, "", ""}}), &made);
        a = made;
        d = test::afterEdit(d, operations::addPoints("B", {{"2", {9, 9}, 2.0, "", ""}}), &made);
        b = made;
        window->session().project().startNew(d);
        window->settle();
    }
    void TearDown() override {
        open = true;
        WindowTest::TearDown();
    }

    /// Waits at a gate, then renames the set A; stops when it is told to.
    document::LongEdit renameAtGate(const std::string& name) {
        return [this, name](const Document& d, const Context& context) -> Result<Edited> {
            ++begun;
            while (!open) {
                if (context.isCancelled()) return cancelled();
                std::this_thread::sleep_for(std::chrono::milliseconds(1));
            }
            return operations::rename(a, name)(d);
        };
    }
    /// Opens the gate when the event loop has turned for a while.
    void openSoon() {
        QTimer::singleShot(40, window.get(), [this] { open = true; });
    }
    [[nodiscard]] QStringList steps() const {
        QStringList out;
        for (const auto& step : window->session().history().steps()) out << QString::fromStdString(step.what);
        return out.mid(1);
    }

    ObjectId a;
    ObjectId b;
    std::atomic<bool> open{false};
    std::atomic<int> begun{0};
};

TEST_F(LongEdits, AreDoneInTheirOrderAndTheWindowGoesOnMeanwhile) {
    auto& session = window->session();
    std::vector<std::string> told;
    for (const char* name : {"one", "two"})
        session.longEdit(QString::fromLatin1(name), renameAtGate(name), [&told, name](const Outcome& o) {
            EXPECT_TRUE(o);
            told.emplace_back(name);
        });
    EXPECT_EQ(session.editing(), QStringLiteral("one"));
    int turns = 0;
    QTimer timer;
    QObject::connect(&timer, &QTimer::timeout, [&turns] { ++turns; });
    timer.start(1);
    ASSERT_TRUE(QTest::qWaitFor([&] { return turns > 5 && begun > 0; }));
    EXPECT_EQ(doc().nameOf(a), "A");
    open = true;
    session.waitForResults();
    EXPECT_EQ(doc().nameOf(a), "two");
    EXPECT_EQ(told, (std::vector<std::string>{"one", "two"}));
    EXPECT_EQ(steps(), (QStringList{QStringLiteral("one"), QStringLiteral("two")}));
    EXPECT_TRUE(session.editing().isEmpty());
}

TEST_F(LongEdits, AQuickOneWaitsForItsTurn) {
    auto& session = window->session();
    session.longEdit(QStringLiteral("long"), renameAtGate("renamed"));
    openSoon();
    EXPECT_TRUE(session.edit(QStringLiteral("quick"), operations::setPointHeight({b, 0}, 5.0)));
    EXPECT_EQ(steps(), (QStringList{QStringLiteral("long"), QStringLiteral("quick")}));
    EXPECT_EQ(doc().nameOf(a), "renamed");
    EXPECT_EQ(doc().get<objects::Points>(b)->set[0].height, 5.0);
}

TEST_F(LongEdits, AQuickOneOfWhatItChangedIsRefusedWithTheReason) {
    auto& session = window->session();
    session.longEdit(QStringLiteral("long"), renameAtGate("renamed"));
    openSoon();
    const auto outcome = session.edit(QStringLiteral("quick"), operations::setPointHeight({a, 0}, 5.0));
    EXPECT_FALSE(outcome);
    EXPECT_TRUE(outcome.problem.contains(QStringLiteral("changed meanwhile")));
    EXPECT_EQ(doc().get<objects::Points>(a)->set[0].height, 1.0);
    EXPECT_EQ(steps(), QStringList{QStringLiteral("long")});
    // Asked for again it is meant for what is there now.
    EXPECT_TRUE(session.edit(QStringLiteral("quick"), operations::setPointHeight({a, 0}, 5.0)));
}

TEST_F(LongEdits, UndoAndTheStopButtonTakeBackWhatIsNotThereYet) {
    auto& session = window->session();
    ASSERT_TRUE(session.edit(QStringLiteral("before"), operations::setPointHeight({b, 0}, 7.0)));
    for (const bool byUndo : {true, false}) {
        QSignalSpy said(&session, &Session::message);
        std::optional<Outcome> told;
        session.longEdit(QStringLiteral("long"), renameAtGate("renamed"),
                         [&](const Outcome& o) { told = o; });
        if (byUndo)
            run("undo");
        else
            session.cancelWork();
        session.waitForResults();
        ASSERT_TRUE(told);
        EXPECT_FALSE(*told);
        EXPECT_TRUE(told->problem.isEmpty());
        EXPECT_EQ(doc().nameOf(a), "A");
        EXPECT_EQ(steps(), QStringList{QStringLiteral("before")});
        EXPECT_EQ(said.last().first().toString(), QStringLiteral("Stopped; nothing was changed"));
    }
    // The next undo is of the step before.
    run("undo");
    EXPECT_EQ(doc().get<objects::Points>(b)->set[0].height, 2.0);
}

TEST_F(LongEdits, WhatTheyThrowIsAMessage) {
    auto& session = window->session();
    std::optional<Outcome> told;
    session.longEdit(
        QStringLiteral("broken"),
        [](const Document&, const Context&) -> Result<Edited> { throw std::runtime_error("no memory"); },
        [&](const Outcome& o) { told = o; });
    session.waitForResults();
    ASSERT_TRUE(told);
    EXPECT_EQ(told->problem, QStringLiteral("no memory"));
    EXPECT_TRUE(steps().isEmpty());
    EXPECT_TRUE(session.edit(QStringLiteral("after"), operations::setPointHeight({b, 0}, 7.0)));
}

TEST_F(LongEdits, AnotherProjectEndsThem) {
    auto& session = window->session();
    session.longEdit(QStringLiteral("long"), renameAtGate("renamed"));
    session.longEdit(QStringLiteral("longer"), renameAtGate("again"));
    session.project().startNew({});
    EXPECT_TRUE(session.editing().isEmpty());
    EXPECT_TRUE(doc().objects().empty());
    EXPECT_TRUE(steps().isEmpty());
}

TEST_F(LongEdits, AFileThatCannotBeOpenedEndsNone) {
    auto& session = window->session();
    session.longEdit(QStringLiteral("long"), renameAtGate("renamed"));
    session.longEdit(QStringLiteral("longer"), renameAtGate("again"));
    const auto damaged = QString::fromStdString(folder.file("damaged.erdwerk", "not a project"));
    // One of them is worked out while the file is looked at.
    open = true;
    EXPECT_FALSE(session.project().open(damaged));
    session.waitForResults();
    EXPECT_EQ(doc().nameOf(a), "again");
    EXPECT_EQ(steps(), (QStringList{QStringLiteral("long"), QStringLiteral("longer")}));
    EXPECT_EQ(session.project().keeper().state(), format::Keeper::State::Kept);
}

TEST_F(LongEdits, WhileAProjectIsOpenedNoneIsBegun) {
    auto& session = window->session();
    session.longEdit(QStringLiteral("long"), renameAtGate("renamed"));
    const std::string project = folder / "site.erdwerk";
    std::filesystem::copy_file((demoFolder() + QStringLiteral("/quillmoor.erdwerk")).toStdString(), project);
    // Refused at once: it must not wait for one that waits for the project.
    std::optional<Outcome> meanwhile;
    QTimer timer;
    timer.setSingleShot(true);
    QObject::connect(&timer, &QTimer::timeout, [&] {
        meanwhile = session.edit(QStringLiteral("quick"), operations::setPointHeight({b, 0}, 5.0));
    });
    timer.start(0);
    ASSERT_TRUE(session.project().open(QString::fromStdString(project)));
    ASSERT_TRUE(meanwhile);
    EXPECT_FALSE(*meanwhile);
    EXPECT_TRUE(session.editing().isEmpty());
    EXPECT_TRUE(steps().isEmpty());
    EXPECT_NE(doc().nameOf(a), "renamed");
}

TEST_F(LongEdits, WhatFollowsFromOneMayEditAtOnce) {
    auto& session = window->session();
    session.longEdit(QStringLiteral("long"), renameAtGate("renamed"), [&](const Outcome& o) {
        EXPECT_TRUE(o);
        EXPECT_TRUE(session.edit(QStringLiteral("then"), operations::setPointHeight({a, 0}, 3.0)));
    });
    session.longEdit(QStringLiteral("another"), renameAtGate("again"));
    open = true;
    session.waitForResults();
    EXPECT_EQ(steps(),
              (QStringList{QStringLiteral("long"), QStringLiteral("then"), QStringLiteral("another")}));
}

}  // namespace
}  // namespace erdwerk::app
