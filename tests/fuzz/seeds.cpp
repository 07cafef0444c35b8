// Writes small good files, one folder per reader, for the fuzz targets to start from.

#include <cstdio>
#include <filesystem>

#include "core/format/export.h"
#include "core/format/import.h"
#include "core/format/las.h"
#include "core/format/output.h"
#include "core/format/ply.h"
#include "core/format/project_file.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
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
    d = d.added("Parcel 1", objects::Parcel{line, false, 0, "the gate"});
    return d.added("Axis", objects::Alignment{line, false, 0, 20});
}

bool write(const std::string& root) {
    namespace fs = std::filesystem;
    for (const char* reader : {"csv", "las", "ply", "landxml", "project"})
        fs::create_directories(root + "/" + reader);
    const auto derived = derive::evaluate(smallProject());
    if (!derived) return false;
    const auto& tin = derived->surfaces.begin()->second->locator->tin();
    bool good = format::exportFile(root + "/landxml/a.xml", *derived).has_value();
    good = good && format::exportFile(root + "/csv/a.csv", *derived).has_value();
    good = good && format::saveProject(root + "/project/a.erdwerk", *derived).has_value();
    good = good && format::writePly(root + "/ply/a.ply", tin).has_value();
    const auto cloud = survey::cloudFrom({{1, 2, 3}, {4, 5, 6}, {7, 8, 9}});
    good = good && format::writeLas(root + "/las/a.las", cloud).has_value();
    return good && format::writeLas(root + "/las/b.las", cloud, true).has_value();
}

}  // namespace

int main(int count, char** arguments) {
    if (count == 2 && write(arguments[1])) return 0;
    std::fputs("usage: fuzz-seeds FOLDER\n", stderr);
    return 2;
}
