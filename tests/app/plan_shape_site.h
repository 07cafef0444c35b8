#pragma once
// A small site whose ground is a plane, in the real window, for tests of the Shape stage.

#include "core/derive/model.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/plane_site.h"
#include "window_test.h"

namespace erdwerk::app {

/// The plane site (the lane 10 10, 40 10, 40 50 with 10.3, between, 12) and a line "Edge" along y = 5 from 0
/// to 60 with 20 and 23.
class PlanShape : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        site.document = site.document.added(
            "Edge", objects::Line{linework::lineThrough(test::places("0 5, 60 5"), {20.0, 23.0}), {}}, &edge);
        window->session().project().startNew(site.document);
        window->settle();
        window->stageBar()->setStage(Stage::Shape);
        look({45, 40}, 6);
    }
    [[nodiscard]] const linework::Line3D& line(ObjectId id) const {
        return doc().get<objects::Line>(id)->line;
    }
    [[nodiscard]] const linework::ResolvedLine& resolved(ObjectId id) const {
        return *derived().lines.at(id);
    }
    [[nodiscard]] ObjectId last() const { return doc().all<objects::Line>().back(); }
    [[nodiscard]] std::string rule(ObjectId id, std::size_t i) const {
        return operations::controlText(doc(), line(id).vertices[i]);
    }
    [[nodiscard]] QString said() const { return window->prompt()->text(); }

    test::PlaneSite site;
    ObjectId edge;
};

}  // namespace erdwerk::app
