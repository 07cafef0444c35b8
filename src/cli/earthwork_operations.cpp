// Commands that move earth: batters, pads, and what a basin holds.

#include "cli/operation.h"
#include "core/derive/edge.h"
#include "core/derive/model.h"
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
    if (error.file.empty()) error.file = a.edge;
    return tl::unexpected(std::move(error));
}

/// What the options of slopes say; the target is left to the command.
Result<earthwork::BatterShape> shapeOf(const Arguments& a) {
    earthwork::BatterShape out;
    for (const auto& [text, slope] : {std::pair{&a.cut, &out.cut}, {&a.fill, &out.fill}}) {
        if (text->empty()) continue;
        const auto parsed = earthwork::parseSlope(*text);
        if (!parsed) return tl::unexpected(parsed.error());
        *slope = *parsed;
    }
    for (const auto& text : a.berms) {
        const auto berm = earthwork::parseBerm(text);
        if (!berm) return badInput("--berm " + text + ": " + berm.error().text);
        out.berms.push_back(*berm);
    }
    if (a.corners == "round") out.corners = linework::OutsideCorner::Round;
    return out;
}

Result<earthwork::BatterTarget> targetOf(const Arguments& a) {
    const int given =
        (a.toSurface.empty() ? 0 : 1) + (a.toHeight ? 1 : 0) + (a.rise ? 1 : 0) + (a.distance ? 1 : 0);
    if (given != 1) return badInput("give one target: --to-surface, --to-height, --rise or --distance");
    if (a.toHeight) return earthwork::BatterTarget(earthwork::ToHeight{*a.toHeight});
    if (a.rise) return earthwork::BatterTarget(earthwork::ToRise{*a.rise});
    if (a.distance) return earthwork::BatterTarget(earthwork::ToDistance{*a.distance});
    return earthwork::BatterTarget(earthwork::ToSurface{});
}

Result<Outcome> batter(const Arguments& a) {
    auto shape = shapeOf(a);
    if (!shape) return tl::unexpected(shape.error());
    shape->right = a.side == "right";
    auto target = targetOf(a);
    if (!target) return tl::unexpected(target.error());
    shape->target = *target;
    if (auto problem = earthwork::validate(*shape)) return badInput(std::move(*problem));
    const auto line = readNamedLine(a.edge, "a batter");
    if (!line) return tl::unexpected(line.error());
    const auto edge = ofEdge(earthwork::edgeOf(resolved(line->line)), a);
    if (!edge) return tl::unexpected(edge.error());
    std::shared_ptr<const terrain::TinLocator> surface;
    if (!a.toSurface.empty()) {
        auto opened = format::openSurface(a.toSurface, a.withJournal);
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
    if (auto done = writeSurface(a.output, made->faces); !done) return tl::unexpected(done.error());
    if (a.daylight.empty()) return out;
    format::VectorLayer layer{"daylight", format::Shape::LineZ, {}, {}};
    for (const auto& chain : made->daylight) {
        format::VectorFeature f;
        f.places = chain;
        layer.features.push_back(std::move(f));
    }
    if (auto done = format::writeVectorFile(a.daylight, {std::move(layer)}); !done)
        return tl::unexpected(done.error());
    return out;
}

/// The edge as it stands: its own heights, or all of it at one.
Result<earthwork::Edge> padEdge(const Arguments& a) {
    const auto line = readNamedLine(a.edge, "a pad");
    if (!line) return tl::unexpected(line.error());
    if (!line->line.closed) return badInput("the edge of a pad is a closed line", a.edge);
    if (a.rules) return ofEdge(earthwork::edgeOf(resolved(line->line)), a);
    return ofEdge(earthwork::levelEdgeOf(line->line, a.toHeight.value_or(0)), a);
}

Result<Outcome> pad(const Arguments& a) {
    if ((a.toHeight ? 1 : 0) + (a.balance || a.rules ? 1 : 0) != 1)
        return badInput("give the height of the pad: --height, --rules or --balance");
    auto slopes = shapeOf(a);
    if (!slopes) return tl::unexpected(slopes.error());
    earthwork::PadShape shape{std::move(*slopes)};
    if (auto problem = earthwork::validate(shape.batter)) return badInput(std::move(*problem));
    const auto edge = padEdge(a);
    if (!edge) return tl::unexpected(edge.error());
    const auto ground = format::openSurface(a.surfaces.front(), a.withJournal);
    if (!ground) return tl::unexpected(ground.error());
    const earthwork::Earth earth{a.swell, a.shrink};
    earthwork::Pad made;
    double balanceError = 0;
    if (a.balance) {
        auto found = earthwork::balanced(*edge, shape, **ground, earth, a.surplus, a.context);
        if (!found && found.error().code == ErrorCode::NotFound) {
            say(a.edge + ": " + found.error().text);
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
    if (auto done = writeSurface(a.output, made.surface); !done) return tl::unexpected(done.error());
    if (!a.finished.empty()) {
        const auto finished = earthwork::finished((*ground)->tin(), made.surface);
        if (auto done = writeSurface(a.finished, finished); !done) return tl::unexpected(done.error());
    }
    const double net = earth.net(made.volumes);
    Outcome out;
    out.dataIsWrong = !made.batter.open.empty();
    if (out.dataIsWrong)
        say(a.edge + ": the batters do not reach the ground along " +
            std::to_string(made.batter.openLength()) + " of the edge");
    out.json = {{"height", made.height},
                {"cut", made.volumes.cut},
                {"fill", made.volumes.fill},
                {"net", net},
                {"balanceError", a.balance ? ordered_json(balanceError) : ordered_json(nullptr)},
                {"daylightLength", made.batter.daylightLength},
                {"open", made.batter.openLength()}};
    return out;
}

Result<Outcome> storage(const Arguments& a) {
    const auto surface = format::openSurface(a.inputs.front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    terrain::Tin inside;
    const terrain::Tin* tin = &(*surface)->tin();
    if (!a.boundary.empty()) {
        const auto ring = readNamedLine(a.boundary, "the ring");
        if (!ring) return tl::unexpected(ring.error());
        if (!ring->line.closed) return badInput("the ring is not closed", a.boundary);
        const auto boundary = derive::boundaryAlong(resolved(ring->line), derive::breaklineSagitta);
        if (auto valid = terrain::validate(boundary); !valid) return badInput(valid.error().text, a.boundary);
        inside = terrain::clip(*tin, boundary.ring);
        tin = &inside;
        if (inside.empty()) return badInput("the ring lies off the surface", a.boundary);
    }
    const auto table = earthwork::storage(*tin, a.step, a.context);
    if (!table && table.error().code == ErrorCode::NotFound)
        return badInput(table.error().text, a.boundary.empty() ? a.inputs.front() : a.boundary);
    if (!table) return tl::unexpected(table.error());
    Outcome out;
    out.json = {{"lowest", table->lowest}, {"spill", table->spill}, {"stages", ordered_json::array()}};
    for (const auto& s : table->stages)
        out.json["stages"].push_back({{"height", s.height}, {"area", s.area}, {"volume", s.volume}});
    return out;
}

void slopeOptions(CLI::App& app, Arguments& a) {
    app.add_option("--cut", a.cut, "slope where it rises, like 2:1 or 50%");
    app.add_option("--fill", a.fill, "slope where it falls");
    app.add_option("--berm", a.berms, "HEIGHT,WIDTH of a level step; +3,2 or -3,2 from the edge")
        ->expected(1)
        ->multi_option_policy(CLI::MultiOptionPolicy::TakeAll);
    app.add_option("--corners", a.corners, "outside corners: mitre or round (mitre)")
        ->check(CLI::IsMember({"mitre", "round"}));
}

void edgeOption(CLI::App& app, Arguments& a) {
    app.add_option("--edge", a.edge, "file with one line, or FILE:NAME")->required();
}

Operation batterOperation() {
    return {
        "batter", "Faces that run from an edge to a surface, a height, a rise or a distance.",
        "erdwerk-cli batter --edge 'data/demo/earthworks.gpkg:Dome Terrace' --side right --cut 2:1 --fill "
        "3:1 "
        "--to-surface data/demo/quillmoor.erdwerk:Ground -o batter.ply --daylight daylight.geojson --json",
        [](CLI::App& app, Arguments& a) {
            edgeOption(app, a);
            app.add_option("--side", a.side, "left or right of the direction of the edge")
                ->required()
                ->check(CLI::IsMember({"left", "right"}));
            slopeOptions(app, a);
            app.add_option("--to-surface", a.toSurface, "surface that the faces run to");
            app.add_option("--to-height", a.toHeight, "height that they run to");
            app.add_option("--rise", a.rise, "how far they rise (below 0: fall) from the edge");
            app.add_option("--distance", a.distance, "how far they run, with just one of --cut and --fill");
            app.add_option("-o,--output", a.output, "surface of the faces: .xml, .ply, .obj or .glb")
                ->required();
            app.add_option("--daylight", a.daylight, "where they meet the target: .gpkg or .geojson");
        },
        batter};
}

Operation padOperation() {
    return {"pad", "A pad with its batters on the ground, and what earth it takes.",
            "erdwerk-cli pad --edge 'data/demo/earthworks.gpkg:Dome Terrace' --balance --ground "
            "data/demo/quillmoor.erdwerk:Ground --cut 2:1 --fill 2:1 --swell 1.2 -o pad.ply --finished "
            "finished.ply --json",
            [](CLI::App& app, Arguments& a) {
                edgeOption(app, a);
                app.add_option("--height", a.toHeight, "height of the pad");
                app.add_flag("--rules", a.rules, "the edge has its own heights");
                app.add_flag(
                    "--balance", a.balance,
                    "looks for the height at which cut and fill come out; with --rules for the lift");
                app.add_option("--surplus", a.surplus, "loose earth that is to be left over (0)");
                app.add_option("--ground", a.surfaces, "the ground")->required()->expected(1);
                slopeOptions(app, a);
                app.add_option("--swell", a.swell, "loose volume of one of cut (1)");
                app.add_option("--shrink", a.shrink, "fill in place of one loose (1)");
                app.add_option("-o,--output", a.output, "the pad with its batters: .xml, .ply, .obj or .glb")
                    ->required();
                app.add_option("--finished", a.finished, "the ground with the pad in it");
            },
            pad};
}

Operation storageOperation() {
    return {"storage", "Area and volume below each height, up to where it spills.",
            "erdwerk-cli storage 'data/demo/quillmoor.erdwerk:Ground finished' --inside "
            "'data/demo/earthworks.gpkg:Pond rim' --step "
            "0.25 --json",
            [](CLI::App& app, Arguments& a) {
                surfaceArgument(app, a);
                app.add_option("--inside", a.boundary, "file with one closed line, or FILE:NAME");
                app.add_option("--step", a.step, "between stages (0.1)")->check(CLI::PositiveNumber);
            },
            storage};
}

}  // namespace

std::vector<Operation> earthworkOperations() {
    return {batterOperation(), padOperation(), storageOperation()};
}

}  // namespace erdwerk::cli
