#pragma once
// The places that texts offer to the placer: along a line, on it, beside a point. Pictures have x to the
// right and y downwards.

#include <optional>
#include <vector>

#include "core/annotate/label_style.h"
#include "core/annotate/placer.h"

namespace erdwerk::annotate {

/// A line of text in picture units, and where its style wants it.
struct TextLine {
    double width = 0;
    double height = 0;
    Stand stand = Stand::Above;
    double along = 0.5;
    double gap = 0;
};

/// How a candidate came about.
enum class Way : std::uint8_t { AsStyled, Moved, Leader, Tag };

/// Texts along a line given in the direction in which it is read: as styled, slid, on the other side, with a
/// leader; where the line is shorter than they are, the tag instead, if there is one (the last box is then
/// its). Boxes come in the order of the texts. Curved lines push texts out so far that they keep off them.
PlacedText placesAlong(const std::vector<Vec2>& line, const std::vector<TextLine>& texts,
                       const std::optional<TextLine>& tag);

/// Texts beside a symbol of a radius: as styled, mirrored, stacked on each side, and with a leader if that is
/// allowed.
PlacedText placesBeside(Vec2 at, double radius, const std::vector<TextLine>& texts, bool leaders);

/// One text on a line, in its direction: at its middle, then farther to both sides in steps.
PlacedText placesOn(const std::vector<Vec2>& line, double width, double height);

/// Texts stacked round a middle put by hand, with a leader to what they are about where that is farther off
/// than a text is high.
PlacedText placeByHand(Vec2 about, Vec2 middle, const std::vector<TextLine>& texts);

/// A place on a line as far along it as the share of its length, and the turn there.
struct OnLine {
    Vec2 place;
    double turn = 0;
};
/// Requires at least two places.
OnLine alongLine(const std::vector<Vec2>& line, double share);

/// What dragging a text to a place makes of its stand: seen from the line, or from the symbol at `at` where
/// there is no line. `perMillimetre`: picture units.
struct Dragged {
    Stand stand = Stand::Above;
    double along = 0.5;
    double gap = 0;  ///< millimetres
};
Dragged draggedTo(const std::vector<Vec2>& line, Vec2 at, double radius, const TextLine& text, Vec2 place,
                  double perMillimetre);

}  // namespace erdwerk::annotate
