#pragma once
// Rooms on paper: rectangles in millimetres from the upper left corner, y downwards. What dragging one by an
// edge, a corner or as a whole makes of it, and the guides that it catches on.

#include <optional>
#include <span>

namespace erdwerk::paper {

struct Room {
    double left = 0;
    double top = 0;
    double width = 0;
    double height = 0;
    [[nodiscard]] double right() const { return left + width; }
    [[nodiscard]] double bottom() const { return top + height; }
    friend bool operator==(const Room&, const Room&) = default;
};
/// Rooms are not made smaller than this, either way.
inline constexpr double leastRoom = 5;

/// No part of it lies outside, but for a hundredth of a millimetre.
bool isWithin(const Room& room, const Room& outer);
/// They have more than an edge in common.
bool overlap(const Room& a, const Room& b);
/// The same size, moved by the least amount that brings it inside; one that is larger keeps its upper left
/// corner in that of `outer` and is cut to its size.
Room broughtWithin(const Room& room, const Room& outer);

/// What a room is held by. Left and Top may each be combined with one other: the corners.
struct Grip {
    int across = 0;  ///< -1: by its left edge, 1: by its right edge, 0: by neither
    int down = 0;    ///< -1: by its top, 1: by its bottom
    [[nodiscard]] bool whole() const { return across == 0 && down == 0; }
    friend bool operator==(const Grip&, const Grip&) = default;
};
/// Which part of a room lies under a place, within `reach`; the edges before the whole, nothing outside.
std::optional<Grip> gripAt(const Room& room, double x, double y, double reach);

/// A room dragged by a grip; edges stop where it would be smaller than leastRoom.
Room dragged(const Room& room, Grip grip, double dx, double dy);

struct Guided {
    Room room;
    std::optional<double> x = {};  ///< of the upright guide that it caught on
    std::optional<double> y = {};  ///< of the level one
};
/// Lets a dragged room catch on guides within `reach`: the edges and middles of the page and of the other
/// rooms. What is not held does not move; the nearest guide wins, the page's before those of rooms.
Guided guided(const Room& dragged, Grip grip, const Room& page, std::span<const Room> others, double reach);

}  // namespace erdwerk::paper
