#pragma once
// What tests ask of sheets.

#include <vector>

#include "core/objects/sheet.h"

namespace erdwerk::test {

/// Whose description stands on it.
inline std::vector<ObjectId> parcelsOn(const objects::Sheet& sheet) {
    std::vector<ObjectId> out;
    for (const auto& frame : sheet.frames)
        if (const auto* description = std::get_if<objects::DescriptionFrame>(&frame.content))
            out.push_back(description->parcel);
    return out;
}

/// Where its first frame of a kind stands.
template <class F>
std::size_t frameOf(const objects::Sheet& sheet) {
    for (std::size_t i = 0; i < sheet.frames.size(); ++i)
        if (std::holds_alternative<F>(sheet.frames[i].content)) return i;
    return sheet.frames.size();
}

}  // namespace erdwerk::test
