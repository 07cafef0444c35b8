#pragma once
// The texts of a picture: layers ask for them while they paint, the one placer keeps them apart, and they are
// written last, over everything.

#include <QColor>
#include <QFont>
#include <QPainter>
#include <QString>
#include <functional>
#include <unordered_map>

#include "app/base/texts_shown.h"
#include "app/plan/view_transform.h"
#include "core/annotate/text_places.h"

namespace erdwerk::app {

/// Who gives way to whom: the first of them choose first.
enum class TextRank {
    Rim,
    ByHand,
    ParcelName,
    Course,
    Dimension,
    Alignment,
    Label,
    Section,
    Spot,
    PointFigures,
    ContourHeight,
    RimOfScreen  ///< it moves over all others
};

enum class TextBacking {
    Halo,   ///< a rim of paper
    Plate,  ///< on a plate of the ground's colour, for texts in a line
    Frame   ///< a framed sign
};

/// How a piece of text is written. `pixels`: of the screen, at the size of its font.
struct TextLook {
    QString text;
    double pixels = 11;
    QColor colour;
    bool strong = false;
    TextBacking backing = TextBacking::Halo;
};
/// The size of a font whose capital letters are so many millimetres high on paper.
double pixelsOfCapitals(double millimetres);
/// A picture unit of a sheet is so many millimetres.
inline constexpr double millimetresPerPixel = 0.24;

class PlanTexts {
public:
    /// `within`: where texts may stand; whatever lies outside is left out. None on a screen, which moves.
    PlanTexts(const ViewTransform& view, double unit, std::optional<QRectF> within);

    /// A line of text as the placer knows it.
    [[nodiscard]] annotate::TextLine line(const TextLook& look,
                                          annotate::Stand stand = annotate::Stand::Above, double along = 0.5,
                                          double gapPixels = 3) const;
    /// A box round a middle in picture units.
    [[nodiscard]] annotate::TextBox box(const TextLook& look, QPointF middle, double degrees = 0) const;
    [[nodiscard]] QFont font(double pixels, bool strong) const;

    /// Texts keep off a symbol.
    void keepOff(QPointF middle, QSizeF size);
    void keepOff(const annotate::TextBox& box) { placer_.keepOff(box); }

    struct Ask {
        TextRank rank = TextRank::Label;
        std::uint64_t key = 0;        ///< its own among those of its rank and its object
        ObjectId of;                  ///< reported by it, when it is a label or a dimension
        std::vector<TextLook> looks;  ///< one for each box of a candidate
        std::optional<TextLook> tag;  ///< written where a candidate is a tag
        QColor leader;
        bool report = false;
        /// What is drawn besides where it is placed, in picture coordinates.
        std::function<void(QPainter&)> besides = {};
    };
    void ask(annotate::PlacedText places, Ask ask);

    /// Chooses a place for all that was asked for.
    void place();
    /// The same, if it was not done yet, and writes it.
    void write(QPainter& painter);
    /// One text by itself, whatever stands there.
    void writeAt(QPainter& painter, const annotate::TextBox& box, const TextLook& look) const;
    /// What became of it.
    [[nodiscard]] const TextsShown& shown() const { return shown_; }

private:
    [[nodiscard]] double widthOf(const TextLook& look) const;
    void report(const Ask& ask, const annotate::Candidate* candidate);
    void noteMissing(const Ask& ask);

    ViewTransform view_;
    double unit_;
    annotate::Placer placer_;
    std::vector<Ask> asks_;
    std::optional<std::vector<std::optional<std::size_t>>> placed_;
    TextsShown shown_;
    mutable std::unordered_map<int, QFont> fonts_;
};

}  // namespace erdwerk::app
