#pragma once
// A label in the picture: the line it runs along or the symbol it stands beside, and its lines of text.

#include "app/plan/plan_texts.h"
#include "core/annotate/label.h"

namespace erdwerk::app {

struct LabelLayout {
    std::vector<annotate::Vec2> line;  ///< in the direction of reading; empty beside a place
    annotate::Vec2 at;
    double radius = 0;
    std::vector<TextLook> looks;
    std::vector<annotate::TextLine> texts;
};
LabelLayout layoutOf(const annotate::LabelText& label, const PlanTexts& texts, const ViewTransform& view,
                     double unit);
/// The places it offers; the tag, when there is one, in its look.
annotate::PlacedText placesOf(const annotate::LabelText& label, const LabelLayout& layout,
                              const ViewTransform& view, const std::optional<annotate::TextLine>& tag);

}  // namespace erdwerk::app
