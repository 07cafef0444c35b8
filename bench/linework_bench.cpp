// Linework against its peers, on the same data in the same run.
//   One height changed in a web of 500 lines with 20 000 controls, against working all of it out. Two webs:
//   one where each line takes heights from earlier ones, and one where all of them use each other. Heights
//   for 1 000 flat lines from 5 000 texts with leaders, against reading the file.

#include <chrono>
#include <cstdio>
#include <filesystem>
#include <random>

#include "compare.h"
#include "core/derive/model.h"
#include "core/format/vector_file.h"
#include "core/linework/give_heights.h"
#include "core/objects/line.h"
#include "core/operations/lines.h"
#include "core/operations/with.h"

namespace {

using namespace erdwerk;
using bench::bestOf;
using bench::ratio;

constexpr int lineCount = 500;
constexpr int controlCount = 40;

/// Lines east-west, two apart; every tenth control takes its height from another line: in a `mutual` web from
/// any, else from one of the ten before it.
document::Document web(bool mutual) {
    std::mt19937 random(7);
    const auto pick = [&](int from, int to) { return std::uniform_int_distribution<int>(from, to)(random); };
    document::Document d;
    std::vector<ObjectId> ids;
    for (int l = 0; l < lineCount; ++l) {
        linework::Line3D line;
        for (int k = 0; k < controlCount; ++k) {
            linework::LineVertex v;
            v.place = {10.0 * k, 2.0 * l};
            v.rule = k == 0 ? linework::HeightRule(linework::FixedHeight{100.0 + l})
                            : linework::HeightRule(linework::GradeFromPrevious{Grade::percent(1), {}});
            line.vertices.push_back(v);
        }
        ObjectId id;
        d = d.added("Line " + std::to_string(l), objects::Line{line, {}}, &id);
        ids.push_back(id);
    }
    for (int l = 0; l < lineCount; ++l)
        // Even and odd lines in turn along the way: all use each other, and no height depends on itself.
        for (int k = mutual && l % 2 == 1 ? 15 : 10; k < controlCount; k += 10) {
            int other = mutual ? pick(0, lineCount - 1) : pick(std::max(0, l - 10), std::max(0, l - 1));
            if (mutual && other % 2 == l % 2) other = (other + 1) % lineCount;
            if (other == l) continue;
            const auto id = ids[static_cast<std::size_t>(l)];
            auto line = d.get<objects::Line>(id)->line;
            line.vertices[static_cast<std::size_t>(k)].rule =
                linework::OnLine{ids[static_cast<std::size_t>(other)], 0.1, {}, {}};
            d = operations::withLine(d, id, std::move(line));
        }
    return d;
}

void oneHeight(const char* name, bool mutual) {
    const auto d = web(mutual);
    const auto ids = d.all<objects::Line>();
    const double all = bestOf(5, [&] { (void)derive::evaluate(d); });
    const auto full = derive::evaluate(d);
    std::size_t heights = 0;
    for (const auto& [id, line] : full->lines)
        for (const auto& v : line->vertices) heights += v.height ? 1 : 0;
    derive::Model model;
    (void)model.evaluate(d);
    int round = 0;
    // The last control of a line in the middle: what hangs on it follows.
    const double one = bestOf(50, [&] {
        const auto changed =
            operations::setRule(ids[250], controlCount - 1, linework::FixedHeight{150.0 + ++round})(d);
        (void)model.evaluate(changed->document);
    });
    std::printf("%s: %zu heights\n", name, heights);
    ratio("  one height changed / all worked out", one, all, 0.05);
}

void flatLines() {
    const auto path = (std::filesystem::temp_directory_path() / "erdwerk-linework-bench.gpkg").string();
    std::mt19937 random(3);
    std::uniform_real_distribution<double> along(0, 100);
    format::VectorLayer lines{"kerbs", format::Shape::LineZ, {{"name"}}, {}};
    format::VectorLayer leaders{"leaders", format::Shape::LineZ, {{"name"}}, {}};
    format::VectorLayer texts{"texts", format::Shape::PointZ, {{"text"}}, {}};
    for (int l = 0; l < 1000; ++l) {
        const double y = 10.0 * l;
        format::VectorFeature f;
        f.flat = true;
        for (int k = 0; k <= 10; ++k) f.places.push_back({10.0 * k, y, 0});
        f.values = {"Kerb " + std::to_string(l)};
        lines.features.push_back(f);
        for (int t = 0; t < 5; ++t) {
            const double x = along(random);
            format::VectorFeature leader;
            leader.flat = true;
            leader.places = {{x + 1, y + 3, 0}, {x, y, 0}};
            leader.values = {std::string("leader")};
            leaders.features.push_back(leader);
            format::VectorFeature text;
            text.flat = true;
            text.places = {{x + 1, y + 3, 0}};
            text.values = {std::to_string(100 + t) + ",25"};
            texts.features.push_back(text);
        }
    }
    if (!format::writeVectorFile(path, {lines, leaders, texts})) return;
    const double read = bestOf(3, [&] {
        (void)format::readVectorFile(path);
        (void)format::readTexts(path, "text");
    });
    const auto content = format::readVectorFile(path);
    std::vector<linework::FlatLine> flat;
    linework::HeightGivers givers;
    for (const auto& line : content->lines) {
        if (line.layer == "kerbs")
            flat.push_back({line.name, line.line});
        else
            givers.leaders.push_back(planPath(line.line));
    }
    const auto given = format::readTexts(path, "text");
    for (const auto& t : *given) givers.texts.push_back({t.text, t.place});
    std::size_t count = 0;
    const double give = bestOf(5, [&] { count = linework::giveHeights(flat, givers, {})->given.size(); });
    std::printf("flat lines: %zu lines, %zu texts, %zu heights given\n", flat.size(), givers.texts.size(),
                count);
    ratio("  giving heights / reading the file", give, read, 10);
    std::filesystem::remove(path);
}

}  // namespace

int main() {
    oneHeight("web of lines before lines", false);
    oneHeight("web of lines that use each other", true);
    flatLines();
    return 0;
}
