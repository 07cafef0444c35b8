#pragma once
// A small site with one object of each kind.

#include "app/base/session.h"
#include "app/scene/scene_layer.h"
#include "core/annotate/dimension.h"
#include "core/annotate/label_style.h"
#include "core/linework/offset_row.h"
#include "core/objects/anchor.h"
#include "core/objects/backdrop.h"
#include "core/objects/earthwork.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/edit.h"
#include "core/operations/objects.h"
#include "core/operations/sheets.h"
#include "core/parcel/description.h"
#include "core/route/criteria.h"
#include "core/route/marking.h"
#include "core/survey/cloud.h"
#include "core/survey/raster.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::app {

/// One of each kind, over 0 to 100 both ways, each in a place of its own where it can be pointed at.
struct Site {
    document::Document document;
    std::map<std::size_t, ObjectId> ids;  ///< by position of the kind
    Snapshot snapshot;

    template <class T>
    ObjectId add(const std::string& name, T payload) {
        ObjectId id;
        document = document.added(name, std::move(payload), &id);
        ids.emplace(objects::kindIndex<T>, id);
        return id;
    }

    void paper(ObjectId lot) {
        operations::SheetStart start;
        start.paper = {297, 210};
        start.plan.centre = {50, 50};
        start.parcel = lot;
        add("Sheet 1", operations::startedSheet(start));
        objects::Artwork drawing;
        drawing.bytes = std::make_shared<const std::string>("<svg width=\"80mm\" height=\"30mm\"/>");
        add("Office", drawing);
    }

    Site() {
        using namespace objects;
        const ObjectId points = add("Spots", Points{survey::PointSet({{"1", {10, 10}, 5.0, "", ""},
                                                                      {"2", {90, 10}, 7.0, "", ""},
                                                                      {"3", {50, 90}, 9.0, "", ""}})});
        const ObjectId wall =
            add("Wall", Line{linework::lineThrough(test::places("20 20, 40 20"), {6.0, 6.5})});
        ObjectId rim;
        document = document.added(
            "Rim",
            Line{linework::lineThrough(test::places("60 20, 80 20, 80 40, 60 40"), {5, 5, 5, 5}, true)},
            &rim);
        SurfaceDefinition definition;
        definition.sources = {{points, Role::Points}, {wall, Role::Breakline}};
        const ObjectId ground =
            add("Ground", Surface{std::make_shared<const SurfaceDefinition>(definition), {}, {}});
        const ObjectId lane = add("Lane", Alignment{wall, false, 100, 5});
        add("Grade", Profile{lane, ground, {{100, 6, 0}, {120, 7, 0}}, 1});
        const ObjectId lot = add("Lot", Parcel{rim, false, 0, "corner stone"});
        const ObjectId style =
            add("Bearings", LabelStyle{annotate::defaultStyle(annotate::LabelKind::Segment)});
        add("North side", Label{rim, 2, style});
        paper(lot);
        add("Survey", Group{"#123456"});
        document = test::afterEdit(document, operations::setGroup(wall, document.byName<Group>("Survey")));
        Cloud cloud;
        std::vector<geometry::Vec3> flown;
        for (int i = 0; i < 400; ++i) flown.push_back({10 + i % 20 * 1.0, 50 + i / 20 * 1.0, 3});
        cloud.cloud = std::make_shared<const survey::PointCloud>(survey::cloudFrom(flown));
        add("Flight", cloud);
        survey::Raster raster{2, 2, {70, 10, 0, 90, 0, -10}, {1, 2, 3, 4}, {true, true, true, true}};
        add("Heights", HeightRaster{"heights.tif", std::make_shared<const survey::Raster>(raster), {}});
        Picture picture{2, 2, {30, 5, 0, 75, 0, -5}, std::vector<std::uint8_t>(12, 40)};
        add("Photo", Backdrop{"photo.tif", std::make_shared<const Picture>(picture), {}});
        Earthwork pad;
        pad.sort = EarthworkSort::Pad;
        pad.edge = rim;
        pad.ground = ground;
        add("Platform", pad);
        add("Steep", BatterKind{});
        add("Lanes", DesignCriteria{route::laneCriteria()});
        add("Posts", Marking{route::defaultMarking(LengthUnit::Metre)});
        add("Cut", Section{{}, test::places("5 70, 60 75"), {}, 0});
        const ObjectId dimensions = add("Thin", DimensionStyle{});
        add("Wall length", Dimension{annotate::DimensionKind::Aligned,
                                     {{Anchor::On::Vertex, wall, 0, 0.5, {20, 20}},
                                      {Anchor::On::Vertex, wall, 1, 0.5, {40, 20}}},
                                     {3, {}},
                                     dimensions});
        Table courses;
        add("All courses", courses);
        Wording wording{parcel::shippedTemplates()[2]};
        wording.wording.name.clear();
        add("List", wording);
        add("Deed", Reading{"thence N 90°00'00\" E 30.00 m; thence N 0°00'00\" E 20.00 m", {5, 45}});
        add("Kerb", OffsetSet{{test::valueOf(linework::parseOffsetRow("0.3,-2%"))}, {}});
        snapshot.derived = test::valueOf(derive::evaluate(document));
        for (const auto& [id, result] : snapshot.derived.surfaces)
            snapshot.shadings[id] = std::make_shared<const terrain::Shading>(result->locator);
    }
};

}  // namespace erdwerk::app
