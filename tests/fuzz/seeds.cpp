// Writes a small good file of each format that is read, for the fuzz target to start from, and prints their
// endings.

#include <cstdio>
#include <filesystem>

#include "core/derive/evaluation.h"
#include "core/derive/surface_result.h"
#include "core/format/formats.h"
#include "core/format/las.h"
#include "core/format/output.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "core/survey/cloud.h"
#include "support/after_edit.h"

namespace {

using namespace erdwerk;

document::Document smallProject() {
    ObjectId points;
    auto d = test::afterEdit({},
                             operations::addPoints("survey", {{"1", {48000, 91000}, 320.0, "GRND", ""},
                                                              {"2", {48020, 91000}, 321.0, "GRND", ""},
                                                              {"3", {48020, 91020}, 322.0, "TOE1", "n"},
                                                              {"4", {48000, 91020}, 320.5, "", ""}}),
                             &points);
    d = test::afterEdit(d, operations::addSurface("Ground", {{points, objects::Role::Points}}));
    ObjectId line;
    d = d.added("Edge",
                objects::Line{linework::lineThrough({{48001, 91001}, {48019, 91002}, {48010, 91018}},
                                                    {320.0, 320.5, 321.0}, true),
                              objects::LineStyle::Plain},
                &line);
    objects::Alignment axis;
    axis.pis = {{{48000, 91000}}, {{48020, 91010}}};
    d = d.added("Parcel 1", objects::Parcel{line, false, 0, "the gate"});
    return d.added("Axis", axis);
}

/// A small good file of a format, by whichever way it can be written; false when there is none.
bool writeSeed(const format::Format& format, const std::string& path, const derive::Derived& derived) {
    const auto& tin = derived.surfaces.begin()->second->locator->tin();
    if (format.write != nullptr) return format.write(path, derived, format::Figures::Full).has_value();
    if (format.writeSurface != nullptr) return format.writeSurface(path, {"Ground", tin}).has_value();
    const auto cloud = survey::cloudFrom({{1, 2, 3}, {4, 5, 6}, {7, 8, 9}});
    if (format.name == format::lasFile().name) return format::writeLas(path, cloud).has_value();
    if (format.name == format::textXyz().name)
        return format::replaceFile(path, "1 2 3\n4 5 6\n7 8 9\n").has_value();
    return false;
}

/// One folder for each format that is read, named by its ending; prints the endings.
bool write(const std::string& root) {
    const auto derived = derive::evaluate(smallProject());
    if (!derived) return false;
    for (const auto& format : format::formats()) {
        if (format.read == nullptr && format.readSurface == nullptr) continue;
        const std::string ending(format.endings.front());
        const std::string folder = root + "/" + ending.substr(1);
        std::filesystem::create_directories(folder);
        if (!writeSeed(format, folder + "/a" + ending, *derived))
            std::fprintf(stderr, "fuzz-seeds: %s begins with nothing\n", ending.c_str());
        std::printf("%s\n", ending.c_str());
    }
    return true;
}

}  // namespace

int main(int count, char** arguments) {
    if (count == 2 && write(arguments[1])) return 0;
    std::fputs("usage: fuzz-seeds FOLDER\n", stderr);
    return 2;
}
