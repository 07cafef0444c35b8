#include "core/objects/sheet.h"

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

void Kind<Sheet>::references(const Sheet& object, const Visit& visit) {
    visit(object.parcel);
}

std::optional<Sheet> Kind<Sheet>::without(Sheet object, ObjectId gone) {
    if (object.parcel == gone) object.parcel = {};
    return object;
}

}  // namespace erdwerk::objects
