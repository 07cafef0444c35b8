#pragma once
// An object of each kind with every field another than its default.

#include "core/linework/offset_row.h"
#include "core/objects/all.h"
#include "core/objects/object.h"
#include "support/geometry.h"

namespace erdwerk::objects {

using test::places;
using test::valueOf;

/// What a sample is, whether two are the same in every field, and how many other objects it names.
template <class T>
struct Sample;

template <>
struct Sample<Points> {
    static Points make() {
        return {
            survey::PointSet({{"17", {1.5, 2.5}, 3.25, "TOE", "wet"}, {"18", {4, 5}, std::nullopt, "", "ü"}}),
            std::make_shared<const StationTie>(StationTie{{101}, {{"17", 1020.5, -3.25}}})};
    }
    static bool same(const Points& a, const Points& b) {
        if (a.set.size() != b.set.size()) return false;
        for (std::size_t i = 0; i < a.set.size(); ++i)
            if (!(a.set[i] == b.set[i])) return false;
        return (a.tie == b.tie) || (a.tie && b.tie && *a.tie == *b.tie);
    }
    static std::size_t names() { return 1; }
};

template <>
struct Sample<Line> {
    static Line make() {
        Line out{linework::lineThrough(places("0 0, 10 0, 10 10, 0 10"), {1.0}, true), LineStyle::Crest};
        out.line.vertices[0].through = geometry::Vec2{5, -2};
        out.line.vertices[1].rule = linework::GradeFromPrevious{Grade::riseOverRun(1.0 / 3), "3:1"};
        out.line.vertices[2].rule = linework::OnSurface{{101}, 0.1};
        out.line.vertices[3].rule = linework::RiseToNext{-0.15, "-0.15"};
        linework::LineVertex grade;
        grade.isCorner = false;
        grade.fraction = 0.25;
        grade.rule = linework::Interpolated{};
        out.line.vertices.insert(out.line.vertices.begin() + 1, grade);
        out.line.vertices[4].joint = true;
        out.limits = {0.08, 0.005};
        out.follows = std::make_shared<const Follows>(RowOf{
            {102}, *linework::parseOffsetRow("2,="), {true, false, linework::OutsideCorner::Round}, {103}});
        return out;
    }
    static bool same(const Line& a, const Line& b) {
        return a.line == b.line && a.style == b.style && sameFollows(a, b) && a.limits == b.limits;
    }
    static std::size_t names() { return 3; }
};

template <>
struct Sample<Surface> {
    static Surface make() {
        SurfaceDefinition d;
        d.sources = {{{101}, Role::Edge, false, false}, {{102}, Role::Cloud, true, true}};
        d.maxEdge = 25;
        d.narrowest = 0.01;
        d.onCrossing = terrain::CrossingRule::Lower;
        d.tolerance = 0.1;
        d.slopeChange = 0.2;
        d.edits = {{{terrain::EditKind::TakeOver, {1, 2}, {3, 4, 5}}, {103}, false}};
        d.base = {105};
        d.imported = std::make_shared<const terrain::Tin>(test::places3("0 0 1, 10 0 2, 0 10 3"),
                                                          std::vector<std::uint32_t>{0, 1, 2});
        return {std::make_shared<const SurfaceDefinition>(d),
                {0.25, 4, false, true, false, false, true, false, Bands::Slope, true},
                {{104}, 0.05}};
    }
    static bool same(const Surface& a, const Surface& b) {
        const auto& x = *a.definition;
        const auto& y = *b.definition;
        return x.sources == y.sources && x.maxEdge == y.maxEdge && x.narrowest == y.narrowest &&
               x.onCrossing == y.onCrossing && x.tolerance == y.tolerance && x.slopeChange == y.slopeChange &&
               x.edits == y.edits && x.base == y.base && a.style == b.style && a.fit == b.fit && x.imported &&
               y.imported && x.imported->vertices().size() == y.imported->vertices().size() &&
               x.imported->triangle(0)[2].z == y.imported->triangle(0)[2].z;
    }
    static std::size_t names() { return 5; }
};

template <>
struct Sample<Alignment> {
    static Alignment make() {
        Alignment a{{101}, true, 1250.5, 25};
        a.pis = {{{1, 2}}, {{3, 4}, 50, 10, 20}, {{5, 6}}};
        a.elements = {{{1, 2}, {3, 4}, geometry::Vec2{2, 5}},
                      {{3, 4}, {9, 8}, std::nullopt, geometry::Spiral{0, 0.01, 7.5}}};
        a.equations = {{1300, 1350.5}};
        a.serves = "path";
        a.description = "a way up";
        a.criteria = {102};
        a.speeds = {{1250.5, 30}, {1300, 50}};
        a.checked = false;
        a.marking = {103};
        return a;
    }
    static bool same(const Alignment& a, const Alignment& b) {
        return a.line == b.line && a.reversed == b.reversed && a.startStation == b.startStation &&
               a.tickInterval == b.tickInterval && a.pis == b.pis && a.elements == b.elements &&
               a.equations == b.equations && a.serves == b.serves && a.description == b.description &&
               a.criteria == b.criteria && a.speeds == b.speeds && a.checked == b.checked &&
               a.marking == b.marking;
    }
    static std::size_t names() { return 3; }
};

template <>
struct Sample<Profile> {
    static Profile make() {
        Profile out{{101}, {102}, {{0, 10, 0}, {50, 12, 30}, {100, 11, 0}}, 2.5};
        out.design[0].locked = true;
        out.design[1].onGround = -0.25;
        out.across = {{103}};
        out.rows = {route::ProfileRow::Distance, route::ProfileRow::Curve};
        out.scale = 500;
        return out;
    }
    static bool same(const Profile& a, const Profile& b) {
        return a.design == b.design && a.alignment == b.alignment && a.ground == b.ground &&
               a.exaggeration == b.exaggeration && a.across == b.across && a.rows == b.rows &&
               a.scale == b.scale;
    }
    static std::size_t names() { return 3; }
};

template <>
struct Sample<Parcel> {
    static Parcel make() {
        Parcel out{{101}, true, 3, "the \"old\" oak"};
        out.wording = {102};
        out.tie = {103};
        out.commencement = "the pillar";
        out.areas = {"ha", "acre"};
        out.adjoiners = {{0, "Fell"}, {2, "Lane"}};
        out.things = {{1, "a stone"}};
        out.passages = {{Passage::Of::Course, 2, "thence home", "thence due North"},
                        {Passage::Of::Area, 0, "Much land", "Little"}};
        return out;
    }
    static bool same(const Parcel& a, const Parcel& b) { return a == b; }
    static std::size_t names() { return 3; }
};

template <>
struct Sample<LabelStyle> {
    static LabelStyle make() {
        auto style = annotate::defaultStyle(annotate::LabelKind::Curve);
        style.lines.front() = {
            {{annotate::Field::Delta, "R = ", " \"m\"", 4, false, annotate::Seconds::Minutes}},
            annotate::Stand::InLine,
            0.25,
            3.5};
        style.height = 2.25;
        style.tags = false;
        return {style};
    }
    static bool same(const LabelStyle& a, const LabelStyle& b) { return a == b; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<Label> {
    static Label make() {
        Label out{{101}, 3, {102}, Label::On::Place};
        out.at = {12.5, -3};
        out.moved = geometry::Vec2{1, 2.5};
        out.own = annotate::defaultStyle(annotate::LabelKind::Station);
        out.words = "at {station}\nhere";
        return out;
    }
    static bool same(const Label& a, const Label& b) { return a == b; }
    static std::size_t names() { return 2; }
};

template <>
struct Sample<Dimension> {
    static Dimension make() {
        return {annotate::DimensionKind::Chain,
                {{Anchor::On::Vertex, {101}, 2, 0.5, {1, 2}},
                 {Anchor::On::Side, {102}, 1, 0.25, {3, 4}},
                 {Anchor::On::Place, {}, 0, 0.5, {5, 6}},
                 {Anchor::On::Gone, {}, 4, 0.5, {7, 8}}},
                {-3.5, Angle::radians(0.75)},
                {103}};
    }
    static bool same(const Dimension& a, const Dimension& b) { return a == b; }
    static std::size_t names() { return 3; }
};

template <>
struct Sample<DimensionStyle> {
    static DimensionStyle make() {
        return {
            {annotate::ArrowKind::Stroke, 3, false, 0.5, 2.5, annotate::DimensionText::Outside, 1.2, 2.2, 3}};
    }
    static bool same(const DimensionStyle& a, const DimensionStyle& b) { return a == b; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<Table> {
    static Table make() {
        return {TableSort::Stages, {{101}, {102}}, {"pond", "area"}, "area", true, LengthUnit::UsSurveyFoot};
    }
    static bool same(const Table& a, const Table& b) { return a == b; }
    static std::size_t names() { return 2; }
};

template <>
struct Sample<Wording> {
    static Wording make() {
        Wording out{parcel::shippedTemplates()[3]};
        out.wording.name.clear();
        out.wording.line = "go {direction} for {distance:3 ft}";
        return out;
    }
    static bool same(const Wording& a, const Wording& b) { return a == b; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<Reading> {
    static Reading make() {
        return {"thence N 45° E 5 m\nto \"A\"",
                {48000.125, 91000.5},
                Angle::radians(0.25),
                {101},
                parcel::CalledUnit::Chain};
    }
    static bool same(const Reading& a, const Reading& b) { return a == b; }
    static std::size_t names() { return 1; }
};

template <>
struct Sample<Sheet> {
    static Sheet make() {
        Sheet s;
        s.paper = {841, 594};
        PlanFrame plan{{48000.5, 91000.25}, 250, Angle::degrees(30), {101}, 10, 90, {}};
        plan.shown.off = {PlanPart::Contours, PlanPart::PointMarks};
        plan.shown.hide = {{{108}}};
        s.frames = {{{8, 8, 400, 300}, plan},
                    {{8, 310, 400, 90}, ProfileFrame{{102}, 500, 10, 90}},
                    {{410, 8, 200, 200}, SectionsFrame{{103}, 12.5, 8, 100}},
                    {{410, 210, 90, 60}, TableFrame{{104}}},
                    {{410, 280, 90, 60}, DescriptionFrame{{105}, 2.2}},
                    {{620, 8, 60, 40}, LegendFrame{}},
                    {{620, 50, 60, 40}, KeyPlanFrame{}},
                    {{620, 100, 60, 24}, ScaleFrame{}},
                    {{620, 130, 60, 40}, PictureFrame{{106}}},
                    {{700, 500, 96, 42}, TitleFrame{{107}}},
                    {{620, 180, 60, 40}, NotesFrame{"All heights\nin metres.", 3}}};
        s.fields = {{"title", "t"}, {"drawnBy", "A. N."}};
        s.weights = {0.1, 0.2, 0.3, 0.4, 0.15};
        return s;
    }
    static bool same(const Sheet& a, const Sheet& b) { return a == b; }
    static std::size_t names() { return 8; }
};

template <>
struct Sample<Artwork> {
    static Artwork make() {
        Artwork a;
        a.bytes = std::make_shared<const std::string>("<svg width=\"9mm\" height=\"4mm\">{title}</svg>");
        return a;
    }
    static bool same(const Artwork& a, const Artwork& b) { return a == b; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<Marking> {
    static Marking make() { return {{25, 125, false, true, false, true, true, 3.5}}; }
    static bool same(const Marking& a, const Marking& b) { return a == b; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<Section> {
    static Section make() {
        return {{101}, {{1, 2}, {3, 4.5}}, {{102}}, 2.5, {terrain::SectionField::Northing}};
    }
    static bool same(const Section& a, const Section& b) {
        return a.along == b.along && a.axis == b.axis && a.off == b.off && a.interval == b.interval &&
               a.fields == b.fields;
    }
    static std::size_t names() { return 2; }
};

template <>
struct Sample<Group> {
    static Group make() { return {"#123456"}; }
    static bool same(const Group& a, const Group& b) { return a.colour == b.colour; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<Cloud> {
    static Cloud make() {
        Cloud out;
        out.file = "/nowhere/flight.las";
        out.colouring = CloudColouring::Intensity;
        out.filter.classes = {2, 9};
        out.filter.inside = places("0 0, 1 0, 1 1");
        out.spacing = 0.5;
        return out;
    }
    static bool same(const Cloud& a, const Cloud& b) {
        return a.file == b.file && a.colouring == b.colouring && a.filter.classes == b.filter.classes &&
               a.filter.inside == b.filter.inside && a.spacing == b.spacing;
    }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<HeightRaster> {
    static HeightRaster make() { return {"/nowhere/heights.tif", nullptr, {}}; }
    static bool same(const HeightRaster& a, const HeightRaster& b) { return a.file == b.file; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<Backdrop> {
    static Backdrop make() { return {"/nowhere/photo.tif", nullptr, {}}; }
    static bool same(const Backdrop& a, const Backdrop& b) { return a.file == b.file; }
    static std::size_t names() { return 0; }
};

earthwork::BatterForm sampleForm() {
    earthwork::BatterForm form;
    form.cut = "1 in 1.5";
    form.fill = "40%";
    form.berms = {{103, 2, false}, {-3, 1.5, true}};
    form.corners = linework::OutsideCorner::Round;
    form.changes = {{20, 40, 0.5, 0.25}};
    return form;
}

template <>
struct Sample<Earthwork> {
    static Earthwork make() {
        Earthwork out;
        out.sort = EarthworkSort::Pond;
        out.edge = {101};
        out.ground = {102};
        out.form = sampleForm();
        out.right = true;
        out.stretch = EarthworkStretch{5, 25};
        out.inside = {{103}};
        out.earth = {1.2, 0.9};
        return out;
    }
    static bool same(const Earthwork& a, const Earthwork& b) { return a == b; }
    static std::size_t names() { return 3; }
};

template <>
struct Sample<BatterKind> {
    static BatterKind make() {
        BatterKind out{sampleForm()};
        out.form.target = earthwork::ToRise{-3};
        return out;
    }
    static bool same(const BatterKind& a, const BatterKind& b) { return a == b; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<DesignCriteria> {
    static DesignCriteria make() { return {route::laneCriteria()}; }
    static bool same(const DesignCriteria& a, const DesignCriteria& b) { return a == b; }
    static std::size_t names() { return 0; }
};

template <>
struct Sample<OffsetSet> {
    static OffsetSet make() {
        OffsetSet out;
        for (const char* row : {"0.3,-2%", "0,+0.12", "2,="})
            out.rows.push_back(*linework::parseOffsetRow(row));
        out.options = {true, true, linework::OutsideCorner::Round};
        return out;
    }
    static bool same(const OffsetSet& a, const OffsetSet& b) { return a == b; }
    static std::size_t names() { return 0; }
};

}  // namespace erdwerk::objects
