#include "demo_site/project.h"

#include "core/annotate/dimension.h"
#include "core/annotate/label_style.h"
#include "core/linework/offset_row.h"
#include "core/objects/alignment.h"
#include "core/objects/anchor.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/marking.h"
#include "core/objects/offset_set.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/objects/section.h"
#include "core/objects/surface.h"
#include "core/objects/wording.h"
#include "core/operations/earthworks.h"
#include "core/operations/sheets.h"
#include "core/operations/surfaces.h"
#include "core/operations/tables.h"
#include "core/parcel/description.h"
#include "core/route/marking.h"

namespace erdwerk::demo {

using namespace objects;
using namespace document;
using namespace operations;
using geometry::Vec2;

namespace {

class Maker {
public:
    explicit Maker(const Site& site) : site_(site) {}

    Document run() {
        Settings settings;
        settings.name = "Quillmoor Observatory";
        document_ = document_.withSettings(settings);
        groups();
        field();
        ground();
        shape();
        route();
        record();
        rowsByName();
        earthworks();
        marks();
        description();
        sheets();
        return document_;
    }

private:
    ObjectId add(const std::string& name, Payload payload, ObjectId group = {}) {
        ObjectId id;
        document_ = document_.added(name, std::move(payload), &id, group);
        return id;
    }

    void groups() {
        rock_ = add("Rock", Group{"#3F5C73"});
        site_works_ = add("Site works", Group{"#2C6E68"});
        field_lines_ = add("Field lines", Group{"#3F5C73"});
    }

    void field() {
        points_ = add("survey", Points{survey::PointSet(site_.points)});
        for (const auto& line : site_.breaklines) {
            const bool rock = line.name.find("Knoll") != std::string::npos;
            const LineStyle style =
                !rock ? LineStyle::Plain
                      : (line.name.find("crest") != std::string::npos ? LineStyle::Crest : LineStyle::Toe);
            breaklines_.push_back(add(line.name, Line{line.line, style}, rock ? rock_ : field_lines_));
        }
        rim_ = add(site_.rim.name, Line{site_.rim.line, LineStyle::Plain}, field_lines_);
    }

    void ground() {
        std::vector<Source> sources{{points_, Role::Points}};
        for (const ObjectId line : breaklines_) sources.push_back({line, Role::Breakline});
        sources.push_back({rim_, Role::Edge});
        document_ = addSurface("Ground", sources)(document_)->document;
        ground_ = document_.byName<Surface>("Ground");
    }

    void shape() {
        using namespace linework;
        terrace_ = add("Dome Terrace", Line{domeTerrace(), LineStyle::Plain}, site_works_);
        pond_ = add("Pond floor", Line{pondFloor(), LineStyle::Plain}, site_works_);
        Line3D service = lineThrough({{originEast + 20, originNorth + 34},
                                      {originEast + 60, originNorth + 58},
                                      {originEast + 92, originNorth + 80}},
                                     {});
        for (auto& v : service.vertices) v.rule = OnSurface{ground_, -0.8};
        LineVertex middle;
        middle.isCorner = false;
        middle.fraction = 0.5;
        middle.rule = OnSurface{ground_, -0.8};
        service.vertices.insert(service.vertices.begin() + 1, middle);
        add("Service trench", Line{service, LineStyle::Plain}, site_works_);
    }

    void route() {
        const ObjectId line =
            add(site_.lane.name + " centre", Line{site_.lane.line, LineStyle::Plain}, site_works_);
        lane_ = add(site_.lane.name, Alignment{line, false, 0, 10});
        const std::vector<route::Pvi> design{
            {0, 315.4, 0}, {78, 318.1, 40}, {158, 319.0, 40}, {228, 323.9, 0}};
        formation_ =
            add("Lane formation", Line{laneFormation(site_.lane.line, design, ground_), LineStyle::Plain},
                site_works_);
        Profile profile{lane_, ground_, design, 5};
        profile.rows = {route::ProfileRow::Ground, route::ProfileRow::Design};
        add("Lane design", profile);
    }

    /// What is marked along the lane, and a section through the terrace that is kept.
    void marks() {
        route::MarkingSettings marking;
        marking.small = 10;
        marking.large = 50;
        marking.curves = true;
        const ObjectId marks = add("Lane marks", objects::Marking{marking});
        document_ = document::changed<Alignment>(document_, lane_, [&](Alignment& a) { a.marking = marks; });
        objects::Section section;
        section.axis = {{originEast + 66, originNorth + 118}, {originEast + 148, originNorth + 66}};
        add("Terrace section", section);
    }

    /// Adjoiners, what stands at a corner, and a numbered list.
    void description() {
        Wording list{parcel::shippedTemplates()[2]};
        const ObjectId wording = add(list.wording.name, Wording{list.wording});
        const ObjectId plot = document_.byName<Parcel>(site_.plot.name);
        document_ = changed<Parcel>(document_, plot, [wording](Parcel& p) {
            p.wording = wording;
            p.adjoiners = {{0, "the moor"}, {4, "Starling Fell"}, {5, "Starling Fell"}};
            p.things = {{5, "a dry-stone wall"}};
        });
        document_ = changed<Wording>(document_, wording, [](Wording& w) { w.wording.name.clear(); });
    }

    void record() {
        const ObjectId line =
            add(site_.plot.name + " boundary", Line{site_.plot.line, LineStyle::Plain}, site_works_);
        parcel_ =
            add(site_.plot.name, Parcel{line, false, 0, "the iron pin at the south-west corner of Plot Q-4"});
        std::array<ObjectId, 3> styles;
        for (const auto kind :
             {annotate::LabelKind::Segment, annotate::LabelKind::Curve, annotate::LabelKind::Point})
            styles[static_cast<std::size_t>(kind)] = add("Plain " + std::string(annotate::kindName(kind)),
                                                         objects::LabelStyle{annotate::defaultStyle(kind)});
        const auto path = planPath(site_.plot.line);
        for (std::size_t i = 0; i < path.size(); ++i)
            add("Plot course " + std::to_string(i + 1), Label{line, i, styles[arcOf(path[i]) ? 1 : 0]});
        const auto corner = [&](ObjectId of, std::size_t i) {
            return objects::Anchor{objects::Anchor::On::Vertex, of, i};
        };
        const ObjectId thin = add("Plain dimensions", objects::DimensionStyle{});
        add("Terrace width",
            objects::Dimension{
                annotate::DimensionKind::Aligned, {corner(terrace_, 0), corner(terrace_, 1)}, {6, {}}, thin});
        objects::Table areas;
        areas.sort = objects::TableSort::Areas;
        add("Areas", areas);
    }

    /// Dome Terrace and the lane are pads, and below the peat ditch lies a small pond.
    void earthworks() {
        const auto make = [&](ObjectId edge, EarthworkSort sort, const std::string& slope) {
            Earthwork work;
            work.sort = sort;
            work.edge = edge;
            work.ground = ground_;
            work.form.cut = work.form.fill = slope;
            work.earth.swell = 1.2;
            document_ = operations::addEarthwork(work)(document_)->document;
        };
        make(terrace_, EarthworkSort::Pad, "2:1");
        make(formation_, EarthworkSort::Pad, "1.5:1");
        make(pond_, EarthworkSort::Pond, "2:1");
        earthwork::BatterForm steep;
        steep.cut = "1:1";
        steep.fill = "1.5:1";
        steep.berms = {{3, 1.5, true}};
        add("Rock cutting", BatterKind{steep});
    }

    /// Rows to make beside a line in one go.
    void rowsByName() {
        const auto set = [](const std::vector<std::string>& rows) {
            OffsetSet out;
            for (const auto& row : rows) out.rows.push_back(*linework::parseOffsetRow(row));
            out.options.chained = true;
            return out;
        };
        add("Lane kerb", set({"0.3,-2%", "0.02,+0.12", "0.15,2%"}));
        add("Ditch", set({"0.5,-5%", "0.9,-1.5:1", "0.4,+0", "0.9,1.5:1"}));
    }

    /// The set: plan with parcel and description; plan and profile of the lane; earthworks with sections and
    /// volumes.
    void sheets() {
        const auto fields = [](const std::string& title) {
            return std::map<std::string, std::string>{{"project", "Quillmoor Observatory"},
                                                      {"title", title},
                                                      {"drawnBy", "Erdwerk demo"},
                                                      {"date", "2026-11-25"},
                                                      {"status", "for review"}};
        };
        SheetStart plot;
        plot.plan.centre = {originEast + 108, originNorth + 92};
        plot.parcel = parcel_;
        plot.tables = {document_.byName<Table>("Areas")};
        Sheet plan = startedSheet(plot);
        plan.fields = fields("Plan of Plot Q-4");
        add("Plan of Plot Q-4", plan);
        const auto results = std::make_shared<const derive::Derived>(*derive::evaluate(document_));
        const auto along = sheetsAlong(
            results,
            {lane_, document_.byName<Profile>("Lane design"), 750, {420, 297}, "2026-11-25"})(document_);
        document_ = along->document;
        document_ = changed<Sheet>(document_, document_.all<Sheet>().back(),
                                   [&](Sheet& s) { s.fields = fields("Starling Lane: plan and profile"); });
        Table volumes;
        volumes.sort = TableSort::Volumes;
        const ObjectId table = add("Volumes", volumes);
        Sheet works;
        PlanFrame pads{{originEast + 92, originNorth + 66}, 750, {}, {}, 0, 0, {}};
        pads.shown.off.insert({PlanPart::PointMarks, PlanPart::Labels});
        works.frames = {
            {{8, 8, 196, 152}, pads},
            {{208, 8, 204, 235}, SectionsFrame{lane_, 20, 8, 250}},
            {{11, 164, 90, 24}, ScaleFrame{}},
            {{106, 164, 95, 67}, LegendFrame{}},
            {{11, 192, 90, 52}, TableFrame{table}},
            {{11, 250, 190, 36},
             NotesFrame{"Batters 2:1 at the terrace and the pond, 1.5:1 along the lane, in cut and in fill.\n"
                        "Cross-sections seen along the lane, every 20 m, heights as lengths.\n"
                        "Volumes in place; cut swells to 1.2 times.",
                        2.8}},
            {{316, 247, 96, 42}, TitleFrame{}}};
        works.fields = fields("Earthworks");
        add("Earthworks", works);
    }

    const Site& site_;
    Document document_;
    ObjectId rock_, site_works_, field_lines_, points_, rim_, ground_, lane_, terrace_, formation_, pond_,
        parcel_;
    std::vector<ObjectId> breaklines_;
};

}  // namespace

Document project(const Site& site) {
    return Maker(site).run();
}

}  // namespace erdwerk::demo
