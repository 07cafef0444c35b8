#pragma once
// Texts of drawings, which come as points.

#include "core/survey/points.h"

namespace erdwerk::survey {

/// A point that only says something: no number, no height, but a note. Nothing was surveyed there.
inline bool isText(const SurveyPoint& point) {
    return point.number.empty() && !point.height && !point.note.empty();
}

}  // namespace erdwerk::survey
