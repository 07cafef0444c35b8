#include "core/objects/sheet.h"

#include <algorithm>

namespace erdwerk::objects {

std::array<double, 2> paperSize(Paper paper) {
    switch (paper) {
        case Paper::A4:
            return {297, 210};
        case Paper::A1:
            return {841, 594};
        case Paper::A3:
            break;
    }
    return {420, 297};
}

std::string_view paperName(Paper paper) {
    switch (paper) {
        case Paper::A4:
            return "A4";
        case Paper::A1:
            return "A1";
        case Paper::A3:
            break;
    }
    return "A3";
}

double panelWidth(Paper paper) {
    return std::min(96.0, paperSize(paper)[0] * 0.3);
}

std::array<double, 2> planSize(Paper paper) {
    const auto size = paperSize(paper);
    return {size[0] - 2 * sheetMargin - panelWidth(paper), size[1] - 2 * sheetMargin};
}

std::array<double, 2> planSize(const Sheet& sheet) {
    auto size = planSize(sheet.paper);
    if (sheet.profile) size[1] *= 1 - profileShare;
    return size;
}

geometry::Box groundOf(const Sheet& sheet, LengthUnit unit) {
    const auto size = planSize(sheet);
    const double perMillimetre = sheet.scale / 1000 / metresPer(unit);
    const geometry::Vec2 half{size[0] / 2 * perMillimetre, size[1] / 2 * perMillimetre};
    geometry::Box box;
    box.add(sheet.centre - half);
    box.add(sheet.centre + half);
    return box;
}

void Kind<Sheet>::references(const Sheet& object, const Visit& visit) {
    visit(object.parcel);
    if (object.profile) visit(object.profile);
    if (object.sections.alignment) visit(object.sections.alignment);
    for (const ObjectId id : object.tables) visit(id);
}

std::optional<Sheet> Kind<Sheet>::without(Sheet object, ObjectId gone) {
    if (object.parcel == gone) object.parcel = {};
    if (object.profile == gone) object.profile = {};
    if (object.sections.alignment == gone) object.sections = {};
    std::erase(object.tables, gone);
    return object;
}

}  // namespace erdwerk::objects
