#include "core/format/object_json.h"

#include <nlohmann/json.hpp>
#include <set>

#include "core/derive/derived.h"
#include "core/linework/rule_list.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "demo_site/project.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using document::Document;
using nlohmann::json;
using test::valueOf;

TEST(ObjectJson, EveryKindComesBackTheSame) {
    const Document demo = demo::project(demo::survey(7));
    std::set<std::string> kinds;
    for (const auto& [id, object] : demo.objects()) {
        const json j = toJson(*object);
        EXPECT_EQ(toJson(valueOf(objectFromJson(json::parse(j.dump())))), j);
        kinds.insert(j.at("kind"));
    }
    // Clouds, rasters and backdrops name files: attached_test. The demo reads no description back and has no
    // picture.
    EXPECT_EQ(kinds.size() + 6, objects::kindCount);
}

TEST(ObjectJson, EveryHeightRuleAndVerticalCurveComesBackTheSame) {
    const linework::RuleNames names{
        [](ObjectId id) { return std::string(id.value == 7 ? "Ground" : "Kerb"); },
        [](const std::string& name) { return name == "Ground" ? ObjectId{7} : ObjectId{}; },
        [](const std::string& name) { return name == "Kerb" ? ObjectId{9} : ObjectId{}; }};
    std::vector<geometry::Vec2> corners;
    for (int i = 0; i < 13; ++i) corners.push_back({10.0 * i, 0});
    const auto line = valueOf(linework::withRules(
        linework::lineThrough(corners, {}),
        "101.25; 2% curve 40; +0.15 curve K12; =Ground+0.1; ~; ; to 3:1; to -0.15; =Kerb-3:1; @85 x Kerb+2; "
        "=Kerb+1; @ x Kerb; 5; @ meet 2% -1 in 4; h -3; 7",
        names));
    const objects::Object object{{5}, "L", {}, objects::Line{line, {}}};
    const auto back = valueOf(objectFromJson(json::parse(toJson(object).dump())));
    EXPECT_EQ(back.payload.as<objects::Line>()->line, line);
    std::set<std::size_t> kinds;
    for (const auto& v : line.vertices) kinds.insert(v.rule.index());
    EXPECT_EQ(kinds.size(), std::variant_size_v<linework::HeightRule>);
}

TEST(ObjectJson, AnImportedSurfaceKeepsItsTriangles) {
    objects::SurfaceDefinition definition;
    definition.imported = std::make_shared<const terrain::Tin>(test::places3("0 0 1, 4 0 2, 0 4 3"),
                                                               std::vector<std::uint32_t>{0, 1, 2});
    const objects::Object object{
        {5},
        "S",
        {},
        objects::Surface{std::make_shared<const objects::SurfaceDefinition>(definition), {}, {}}};
    const auto back = valueOf(objectFromJson(toJson(object)));
    EXPECT_EQ(back.payload.as<objects::Surface>()->definition->imported->vertex(1),
              (geometry::Vec3{4, 0, 2}));
}

TEST(ObjectJson, SettingsComeBackTheSame) {
    document::Settings s;
    s.name = "Ü \"x\"";
    s.display = {LengthUnit::UsSurveyFoot,
                 DirectionStyle::Azimuth,
                 AngleUnit::Gon,
                 StationStyle::Hundreds,
                 CoordinateOrder::NorthingEasting,
                 3,
                 4,
                 1};
    EXPECT_EQ(valueOf(settingsFromJson(toJson(s))), s);
    EXPECT_FALSE(settingsFromJson(json::object()));
}

TEST(ObjectJson, DamageIsNamedWithTheObject) {
    const Document demo = demo::project(demo::survey(7));
    for (const auto& [id, object] : demo.objects()) {
        const json whole = toJson(*object);
        // Every key that is missing, and every value of a wrong type, is an error that names the object, or
        // is optional.
        for (const auto& [key, value] : whole.items()) {
            json wrong = whole;
            wrong[key] = value.is_string() ? json(17) : json("seventeen");
            const auto r = objectFromJson(wrong);
            if (!r) {
                EXPECT_THAT(r.error().text, testing::HasSubstr("is damaged"));
            }
            wrong.erase(key);
            // What projects of the first version did not have yet may be missing.
            static const std::set<std::string> optional{
                "style",      "bands",        "deviation", "edits",     "fit",    "narrowest",
                "onCrossing", "slopeChange",  "smooth",    "tolerance", "off",    "base",
                "before",     "pis",          "elements",  "equations", "serves", "description",
                "criteria",   "speeds",       "checked",   "marking",   "across", "rows",
                "scale",      "profile",      "sections",  "tables",    "on",     "at",
                "moved",      "own",          "words",     "azimuth",   "unit",   "wording",
                "tie",        "commencement", "areas",     "adjoiners", "things", "passages"};
            if (optional.count(key) == 0) {
                EXPECT_FALSE(objectFromJson(wrong)) << key << " of " << object->name;
            }
        }
    }
}

}  // namespace
}  // namespace erdwerk::format
