#pragma once
// Where in a description one call ends and the next begins, and what a figure in it is called.

#include <vector>

#include "core/parcel/called_figures.h"

namespace erdwerk::parcel {

/// Words of one call, from "thence", its number, or its direction. What a call before it says of this one's
/// curve ("… to the beginning of a curve having a radius of 50 feet; thence along said curve") is its
/// opening.
struct CallSpan {
    std::size_t from = 0;
    std::size_t body = 0;  ///< behind "thence" or the number
    std::size_t to = 0;
    std::size_t openingFrom = 0;
    std::size_t openingTo = 0;
};

/// The calls of a text in their order: at "thence" and "then", at numbers that count (1), 2), 3), and where
/// the next direction or curve begins in a chain of commas, semicolons or lines.
std::vector<CallSpan> callsOf(Words words);

/// What the words before a figure say that it is.
enum class Named { Nothing, Radius, Chord, Arc, Delta, Radial, StartTangent, TangentLength, Aside };
/// The nearest such word between `from` (the end of the figure before) and the figure. Aside: a tree that
/// bears so and so, the basis of bearings.
Named namedBefore(Words words, std::size_t from, std::size_t at);
/// Of a length, by what follows it: "50.00 foot radius", "35.20 feet along the arc"; past which word.
struct NamedBehind {
    Named named = Named::Nothing;
    std::size_t end = 0;
};
NamedBehind namedBehind(Words words, std::size_t end, std::size_t to);
/// "along a tangent curve", "on the arc of said curve", "curving", at a word.
bool curveBeginsAt(Words words, std::size_t at);
/// A direction that is a call's: in full, or a cardinal one with a length close behind.
std::optional<FoundDirection> callDirectionAt(Words words, std::size_t at);

}  // namespace erdwerk::parcel
