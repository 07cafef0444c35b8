#pragma once
// What storms of quick actions have in common: dice, and what must hold afterwards.

#include <filesystem>
#include <random>

#include "core/format/journal.h"
#include "core/format/keeper.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "support/same.h"
#include "window_test.h"

namespace erdwerk::app {

class StormTest : public WindowTest {
protected:
    using Action = std::function<bool()>;

    std::size_t pick(std::size_t n) {
        return n == 0 ? 0 : std::uniform_int_distribution<std::size_t>(0, n - 1)(random);
    }
    double step() { return std::uniform_real_distribution<double>(-3, 3)(random); }
    template <class T>
    ObjectId any() {
        const auto all = doc().all<T>();
        return all.empty() ? ObjectId{} : all[pick(all.size())];
    }
    [[nodiscard]] const linework::Line3D& line(ObjectId id) const {
        return doc().get<objects::Line>(id)->line;
    }
    std::size_t anyVertex(ObjectId id) { return pick(line(id).vertices.size()); }
    std::size_t anySide(ObjectId id) { return pick(planPath(line(id)).size()); }
    bool quick(const char* what, const document::Edit& edit) {
        return window->session().edit(QString::fromLatin1(what), edit).done;
    }
    [[nodiscard]] const survey::PointSet& points(ObjectId set) const {
        return doc().get<objects::Points>(set)->set;
    }

    void expectNothingDangles(int i) {
        for (const auto& [other, object] : doc().objects())
            for (const ObjectId named : objects::references(object->payload))
                if (!object->payload.is<objects::Line>())
                    EXPECT_TRUE(doc().find(named)) << "after action " << i;
    }
    /// The demo as a saved project, so that its journal stands beside it.
    void savedDemo() {
        demo();
        ASSERT_TRUE(window->session().project().saveAndWait(QString::fromStdString(project())));
    }
    [[nodiscard]] std::string project() const { return folder / "storm.erdwerk"; }
    /// Back to the start and on to the last step; then the journal brings back, as after a crash, what is
    /// there.
    void expectHistoryHolds() {
        auto& session = window->session();
        session.waitForResults();
        session.goTo(0);
        session.goTo(session.history().steps().size() - 1);
        const std::string copy = folder / "copy.erdwerk";
        std::filesystem::copy_file(project(), copy);
        std::filesystem::copy_file(format::journalPath(project()), format::journalPath(copy));
        format::Keeper keeper;
        const auto opened = keeper.open(copy);
        ASSERT_TRUE(opened) << opened.error().message();
        EXPECT_TRUE(opened->recovery.problem.empty()) << opened->recovery.problem;
        ASSERT_FALSE(opened->recovery.documents.empty());
        test::expectSame(doc(), opened->recovery.documents.back());
        keeper.close(true);
    }

    /// Another storm: STORM_SEED=7 app-tests --gtest_filter=Storm.*
    std::mt19937 random{static_cast<unsigned>(qEnvironmentVariable("STORM_SEED", "500").toUInt())};
};

}  // namespace erdwerk::app
