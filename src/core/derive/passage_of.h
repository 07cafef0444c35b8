#pragma once

#include "core/objects/parcel.h"
#include "core/parcel/description.h"

namespace erdwerk::derive {

/// What a part of a description is kept as when it is changed by hand. A note is never changed.
inline objects::Passage::Of passageOf(parcel::DescriptionPart::Kind kind) {
    using Kind = parcel::DescriptionPart::Kind;
    using Of = objects::Passage::Of;
    switch (kind) {
        case Kind::Opening:
            return Of::Opening;
        case Kind::Beginning:
            return Of::Beginning;
        case Kind::ListOpening:
            return Of::ListOpening;
        case Kind::Area:
            return Of::Area;
        case Kind::Course:
        case Kind::Note:
            break;
    }
    return Of::Course;
}

}  // namespace erdwerk::derive
