#pragma once
// A site whose ground is a plane, so that every height is known: z = 10 + 0.02 x + 0.01 y over 0 to 100 both
// ways.

#include "core/derive/model.h"
#include "core/document/transaction.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/edit.h"
#include "core/operations/lines.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::test {

struct PlaneSite {
    document::Document document;
    ObjectId points;
    ObjectId ground;
    ObjectId lane;   ///< open: 10 10, 40 10, 40 50; heights 10.3, between, 12
    ObjectId plot;   ///< closed: 60 60, 90 60, 90 90, 60 90; no heights
    ObjectId group;  ///< of the lane

    static double height(double x, double y) { return 10 + 0.02 * x + 0.01 * y; }

    PlaneSite() {
        std::vector<survey::SurveyPoint> set;
        for (const auto& p : places("0 0, 100 0, 100 100, 0 100, 50 50"))
            set.push_back({std::to_string(set.size() + 1), p, height(p.x, p.y), "G", ""});
        document = test::afterEdit({}, operations::addPoints("Spots", set), &points);
        document = document.added("Lines", objects::Group{"#123456"}, &group);
        document = document.added(
            "Lane",
            objects::Line{linework::lineThrough(places("10 10, 40 10, 40 50"), {10.3, {}, 12.0}),
                          objects::LineStyle::Crest},
            &lane, group);
        document = document::changed<objects::Line>(
            document, lane, [](objects::Line& l) { l.line.vertices[1].rule = linework::Interpolated{}; });
        document = document.added(
            "Plot", objects::Line{linework::lineThrough(places("60 60, 90 60, 90 90, 60 90"), {}, true)},
            &plot);
        document = test::afterEdit(
            document, operations::addSurface("Ground", {{points, objects::Role::Points}}), &ground);
    }

    [[nodiscard]] operations::Results results() const {
        return std::make_shared<const derive::Derived>(valueOf(derive::evaluate(document)));
    }
    [[nodiscard]] const linework::Line3D& line(ObjectId id) const {
        return document.get<objects::Line>(id)->line;
    }
    [[nodiscard]] linework::ResolvedLine resolved(ObjectId id) const { return *results()->lines.at(id); }
    /// Does it; false with the reason in `said`.
    bool apply(const document::Edit& edit) {
        auto done = document::perform("test", edit, document);
        said = done ? done->said : done.error().text;
        if (done) document = done->document;
        return done.has_value();
    }
    template <class T>
    [[nodiscard]] ObjectId last() const {
        return document.all<T>().back();
    }
    std::string said;
};

}  // namespace erdwerk::test
