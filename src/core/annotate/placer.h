#pragma once
// Keeps the texts of a picture apart. Each text offers places in the order in which it likes them; whoever is
// of a higher rank chooses first. The same input gives the same picture, in whatever order it is given.

#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::annotate {

using geometry::Vec2;

/// A rectangle round its centre, turned; in units of the picture, y whichever way.
struct TextBox {
    Vec2 centre;
    double width = 0;
    double height = 0;
    double turn = 0;      ///< radians, from x towards y
    bool onLine = false;  ///< it stands on the line that it belongs to
};
std::vector<Vec2> cornersOf(const TextBox& box);
/// Whether they share more than their rims.
bool overlap(const TextBox& a, const TextBox& b);
bool contains(const TextBox& box, Vec2 place);
/// Whether a straight runs through the inside of a box.
bool crosses(const TextBox& box, Vec2 a, Vec2 b);

/// A leader: a straight that keeps free of texts, and they of it.
struct Leader {
    Vec2 from;
    Vec2 to;
};

/// One way to write a text.
struct Candidate {
    std::vector<TextBox> boxes;
    std::optional<Leader> leader = {};
    std::uint8_t way = 0;  ///< whatever who asks wants to know of it
};

struct PlacedText {
    int rank = 0;           ///< the lowest choose first
    std::uint64_t key = 0;  ///< its own among those of its rank, the same in every picture
    std::vector<Candidate> candidates;
    std::vector<Vec2> own = {};  ///< the line it belongs to: no box lies across it but those that stand on it
    bool stays = false;          ///< put by hand: keeps off texts only
};

class Placer {
public:
    /// Something that texts keep off.
    void keepOff(const TextBox& symbol) { symbols_.push_back(symbol); }
    void add(PlacedText text) { texts_.push_back(std::move(text)); }
    [[nodiscard]] std::size_t size() const { return texts_.size(); }
    [[nodiscard]] const PlacedText& text(std::size_t i) const { return texts_[i]; }

    /// For each text, as they were added, which of its candidates it got; nothing where none was free. Texts
    /// of one rank choose in an order that is mixed by their keys, so that what one of them does matters only
    /// nearby. Costs about what lies in the same cells of a grid.
    [[nodiscard]] std::vector<std::optional<std::size_t>> place() const;

private:
    std::vector<TextBox> symbols_;
    std::vector<PlacedText> texts_;
};

/// Pairs of boxes that lie on each other; boxes without area are in none.
std::size_t countOverlaps(std::span<const TextBox> boxes);

}  // namespace erdwerk::annotate
