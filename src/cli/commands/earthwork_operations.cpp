// Commands that move earth: batters, pads, and what a basin holds.

#include "cli/operation.h"
#include "core/derive/edge.h"
#include "core/derive/model.h"
#include "core/derive/surface_result.h"
#include "core/earthwork/batter_text.h"
#include "core/earthwork/pad.h"
#include "core/earthwork/storage.h"
#include "core/terrain/clip.h"

namespace erdwerk::cli {

namespace {

using nlohmann::ordered_json;

/// Names the file of an edge that cannot be used.
template <class T>
Result<T> ofEdge(Result<T> result, const Arguments& a) {
    if (result || result.error().code == ErrorCode::Cancelled) return result;
    Error error = result.error();
    if (error.file.empty()) error.file = a.text("edge");
    return tl::unexpected(std::move(error));
}

/// What the options of slopes say; the target is left to the command.
Result<earthwork::BatterShape> shapeOf(const Arguments& a) {
    earthwork::BatterShape out;
    for (const auto& [text, slope] : {std::pair{&a.text("cut"), &out.cut}, {&a.text("fill"), &out.fill}}) {
        if (text->empty()) continue;
        const auto parsed = earthwork::parseSlope(*text);
        if (!parsed) return tl::unexpected(parsed.error());
        *slope = *parsed;
    }
    for (const auto& text : a.texts("berm")) {
        const auto berm = earthwork::parseBerm(text);
        if (!berm) return badInput("--berm " + text + ": " + berm.error().text);
        out.berms.push_back(*berm);
    }
    if (a.text("corners") == "round") out.corners = linework::OutsideCorner::Round;
    return out;
}

Result<earthwork::BatterTarget> targetOf(const Arguments& a) {
    const auto height = a.numberIf("to-height");
    const auto rise = a.numberIf("rise");
    const auto distance = a.numberIf("distance");
    const int given =
        (a.text("to-surface").empty() ? 0 : 1) + (height ? 1 : 0) + (rise ? 1 : 0) + (distance ? 1 : 0);
    if (given != 1) return badInput("give one target: --to-surface, --to-height, --rise or --distance");
    if (height) return earthwork::BatterTarget(earthwork::ToHeight{*height});
    if (rise) return earthwork::BatterTarget(earthwork::ToRise{*rise});
    if (distance) return earthwork::BatterTarget(earthwork::ToDistance{*distance});
    return earthwork::BatterTarget(earthwork::ToSurface{});
}

Result<Outcome> batter(const Arguments& a) {
    auto shape = shapeOf(a);
    if (!shape) return tl::unexpected(shape.error());
    shape->right = a.text("side") == "right";
    auto target = targetOf(a);
    if (!target) return tl::unexpected(target.error());
    shape->target = *target;
    if (auto problem = earthwork::validate(*shape)) return badInput(std::move(*problem));
    const auto line = readNamedLine(a.text("edge"), "a batter");
    if (!line) return tl::unexpected(line.error());
    const auto edge = ofEdge(earthwork::edgeOf(resolved(line->line)), a);
    if (!edge) return tl::unexpected(edge.error());
    std::shared_ptr<const terrain::TinLocator> surface;
    if (!a.text("to-surface").empty()) {
        auto opened = format::openSurface(a.text("to-surface"), a.withJournal);
        if (!opened) return tl::unexpected(opened.error());
        surface = std::move(*opened);
    }
    const auto made = ofEdge(earthwork::batter(*edge, *shape, surface.get(), a.context), a);
    if (!made) return tl::unexpected(made.error());
    Outcome out;
    out.dataIsWrong = !made->open.empty();
    out.json = {{"daylightLength", made->daylightLength},
                {"triangles", made->faces.triangleCount()},
                {"planArea", made->planArea},
                {"open", made->openLength()}};
    if (made->faces.empty()) {
        say("the target is reached from nowhere along the edge; nothing is written");
        return out;
    }
    if (auto done = writeSurface(a.text("output"), made->faces); !done) return tl::unexpected(done.error());
    if (a.text("daylight").empty()) return out;
    format::VectorLayer layer{"daylight", format::Shape::LineZ, {}, {}};
    for (const auto& chain : made->daylight) {
        format::VectorFeature f;
        f.places = chain;
        layer.features.push_back(std::move(f));
    }
    if (auto done = format::writeVectorFile(a.text("daylight"), {std::move(layer)}); !done)
        return tl::unexpected(done.error());
    return out;
}

/// The edge as it stands: its own heights, or all of it at one.
Result<earthwork::Edge> padEdge(const Arguments& a) {
    const auto line = readNamedLine(a.text("edge"), "a pad");
    if (!line) return tl::unexpected(line.error());
    if (!line->line.closed) return badInput("the edge of a pad is a closed line", a.text("edge"));
    if (a.flag("rules")) return ofEdge(earthwork::edgeOf(resolved(line->line)), a);
    return ofEdge(earthwork::levelEdgeOf(line->line, a.numberIf("height").value_or(0)), a);
}

Result<Outcome> pad(const Arguments& a) {
    if ((a.numberIf("height") ? 1 : 0) + (a.flag("balance") || a.flag("rules") ? 1 : 0) != 1)
        return badInput("give the height of the pad: --height, --rules or --balance");
    auto slopes = shapeOf(a);
    if (!slopes) return tl::unexpected(slopes.error());
    earthwork::PadShape shape{std::move(*slopes)};
    if (auto problem = earthwork::validate(shape.batter)) return badInput(std::move(*problem));
    const auto edge = padEdge(a);
    if (!edge) return tl::unexpected(edge.error());
    const auto ground = format::openSurface(a.texts("ground").front(), a.withJournal);
    if (!ground) return tl::unexpected(ground.error());
    const earthwork::Earth earth{a.number("swell"), a.number("shrink")};
    earthwork::Pad made;
    double balanceError = 0;
    if (a.flag("balance")) {
        auto found = earthwork::balanced(*edge, shape, **ground, earth, a.number("surplus"), a.context);
        if (!found && found.error().code == ErrorCode::NotFound) {
            say(a.text("edge") + ": " + found.error().text);
            Outcome none;
            none.dataIsWrong = true;
            none.json = {{"height", nullptr}};
            return none;
        }
        if (!found) return tl::unexpected(ofEdge(std::move(found), a).error());
        made = std::move(found->pad);
        balanceError = found->error;
    } else {
        auto found = ofEdge(earthwork::pad(*edge, shape, **ground, a.context), a);
        if (!found) return tl::unexpected(found.error());
        made = std::move(*found);
    }
    if (auto done = writeSurface(a.text("output"), made.surface); !done) return tl::unexpected(done.error());
    if (!a.text("finished").empty()) {
        const auto finished = earthwork::finished((*ground)->tin(), made.surface);
        if (auto done = writeSurface(a.text("finished"), finished); !done)
            return tl::unexpected(done.error());
    }
    const double net = earth.net(made.volumes);
    Outcome out;
    out.dataIsWrong = !made.batter.open.empty();
    if (out.dataIsWrong)
        say(a.text("edge") + ": the batters do not reach the ground along " +
            std::to_string(made.batter.openLength()) + " of the edge");
    out.json = {{"height", made.height},
                {"cut", made.volumes.cut},
                {"fill", made.volumes.fill},
                {"net", net},
                {"balanceError", a.flag("balance") ? ordered_json(balanceError) : ordered_json(nullptr)},
                {"daylightLength", made.batter.daylightLength},
                {"open", made.batter.openLength()}};
    return out;
}

Result<Outcome> storage(const Arguments& a) {
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    terrain::Tin inside;
    const terrain::Tin* tin = &(*surface)->tin();
    if (!a.text("inside").empty()) {
        const auto ring = readNamedLine(a.text("inside"), "the ring");
        if (!ring) return tl::unexpected(ring.error());
        if (!ring->line.closed) return badInput("the ring is not closed", a.text("inside"));
        const auto boundary = derive::boundaryAlong(resolved(ring->line), derive::breaklineSagitta);
        if (auto valid = terrain::validate(boundary); !valid)
            return badInput(valid.error().text, a.text("inside"));
        inside = terrain::clip(*tin, boundary.ring);
        tin = &inside;
        if (inside.empty()) return badInput("the ring lies off the surface", a.text("inside"));
    }
    const auto table = earthwork::storage(*tin, a.number("step"), a.context);
    if (!table && table.error().code == ErrorCode::NotFound)
        return badInput(table.error().text, a.text("inside").empty() ? a.inputs().front() : a.text("inside"));
    if (!table) return tl::unexpected(table.error());
    Outcome out;
    out.json = {{"lowest", table->lowest}, {"spill", table->spill}, {"stages", ordered_json::array()}};
    for (const auto& s : table->stages)
        out.json["stages"].push_back({{"height", s.height}, {"area", s.area}, {"volume", s.volume}});
    return out;
}

void slopeOptions(Options& options) {
    options.text("--cut", "slope where it rises, like 2:1 or 50%");
    options.text("--fill", "slope where it falls");
    options.texts("--berm", "HEIGHT,WIDTH of a level step; +3,2 or -3,2 from the edge").count(1).all();
    options.text("--corners", "outside corners: mitre or round (mitre)")
        .defaultsTo("mitre")
        .among({"mitre", "round"});
}

void edgeOption(Options& options) {
    options.text("--edge", "file with one line, or FILE:NAME").needed();
}

Operation batterOperation() {
    return {
        "batter", "Faces that run from an edge to a surface, a height, a rise or a distance.",
        "erdwerk-cli batter --edge 'data/demo/earthworks.gpkg:Dome Terrace' --side right --cut 2:1 --fill "
        "3:1 "
        "--to-surface data/demo/quillmoor.erdwerk:Ground -o batter.ply --daylight daylight.geojson --json",
        [](Options& options) {
            edgeOption(options);
            options.text("--side", "left or right of the direction of the edge")
                .needed()
                .among({"left", "right"});
            slopeOptions(options);
            options.text("--to-surface", "surface that the faces run to");
            options.number("--to-height", "height that they run to");
            options.number("--rise", "how far they rise (below 0: fall) from the edge");
            options.number("--distance", "how far they run, with just one of --cut and --fill").positive();
            outputOption(options, "surface of the faces: .xml, .ply, .obj or .glb");
            options.text("--daylight", "where they meet the target: .gpkg or .geojson");
        },
        batter};
}

Operation padOperation() {
    return {"pad", "A pad with its batters on the ground, and what earth it takes.",
            "erdwerk-cli pad --edge 'data/demo/earthworks.gpkg:Dome Terrace' --balance --ground "
            "data/demo/quillmoor.erdwerk:Ground --cut 2:1 --fill 2:1 --swell 1.2 -o pad.ply --finished "
            "finished.ply --json",
            [](Options& options) {
                edgeOption(options);
                options.number("--height", "height of the pad");
                options.flag("--rules", "the edge has its own heights");
                options.flag(
                    "--balance",
                    "looks for the height at which cut and fill come out; with --rules for the lift");
                options.number("--surplus", "loose earth that is to be left over (0)");
                options.texts("--ground", "the ground").needed().count(1);
                slopeOptions(options);
                options.number("--swell", "loose volume of one of cut (1)").defaultsTo(1).positive();
                options.number("--shrink", "fill in place of one loose (1)").defaultsTo(1).positive();
                outputOption(options, "the pad with its batters: .xml, .ply, .obj or .glb");
                options.text("--finished", "the ground with the pad in it");
            },
            pad};
}

Operation storageOperation() {
    return {"storage", "Area and volume below each height, up to where it spills.",
            "erdwerk-cli storage 'data/demo/quillmoor.erdwerk:Ground finished' --inside "
            "'data/demo/earthworks.gpkg:Pond rim' --step "
            "0.25 --json",
            [](Options& options) {
                surfaceArgument(options);
                options.text("--inside", "file with one closed line, or FILE:NAME");
                options.number("--step", "between stages (0.1)").defaultsTo(0.1).positive();
            },
            storage};
}

}  // namespace

std::vector<Operation> earthworkOperations() {
    return {batterOperation(), padOperation(), storageOperation()};
}

}  // namespace erdwerk::cli
