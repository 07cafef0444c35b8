#pragma once
// Draws a 3D line corner by corner, clicked or typed, with a height rule at each.

#include "app/plan/tool.h"
#include "core/base/notation.h"
#include "core/linework/line3d.h"

namespace erdwerk::app {

class DrawLineTool : public Tool {
    Q_OBJECT
public:
    explicit DrawLineTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    bool stepForward() override;
    void complete() override;
    [[nodiscard]] std::optional<geometry::Vec2> origin() const override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    void leave() override;
    [[nodiscard]] std::vector<Snap> ownPlaces() const override;
    void pickUp(const Snap& snap) override;
    bool escape() override;
    /// As it is drawn so far; a line that is continued stands before what is drawn, turned so that it goes
    /// on.
    [[nodiscard]] linework::Line3D line() const;

private:
    /// All that a step changes, so that each can be taken back and done again.
    struct State {
        ObjectId continues;  ///< the line that is continued, by its start or end
        bool atStart = false;
        std::vector<linework::LineVertex> drawn;
        std::optional<geometry::Vec2> throughFromEnd;  ///< the first drawn side of a continued line is an arc
        bool closed = false;
        std::optional<double> level;  ///< all corners have this height, and the line is closed
        bool smooth = false;          ///< sides become arcs that touch each other
    };
    /// What is typed for the next corner while the mouse gives the rest.
    struct Held {
        std::optional<double> length;
        std::optional<Angle> direction;
        std::optional<linework::HeightRule> rule;
    };
    /// How the next side goes.
    struct NextSide {
        enum class How { Straight, Tangent, Radius, Through } how = How::Straight;
        double radius = 0;                      ///< below 0: to the left
        std::optional<geometry::Vec2> through;  ///< once it was clicked
    };
    void continueLine(const Snap& snap);
    void addCorner(geometry::Vec2 place, linework::HeightRule rule);
    void mend(geometry::Vec2 place, std::optional<linework::HeightRule> rule);
    [[nodiscard]] bool isMending() const { return mending_ && *mending_ < state_.drawn.size(); }
    /// As far as length and direction are held, else where the mouse is.
    [[nodiscard]] geometry::Vec2 held(geometry::Vec2 place) const;
    [[nodiscard]] bool enterWord(const QString& word, const QString& rest);
    [[nodiscard]] bool enterSide(const QString& rest);
    [[nodiscard]] bool enterHeld(const QString& word, const QString& rest);
    /// The line as it will be in the project: level, closed, smooth.
    [[nodiscard]] linework::Line3D finishedLine() const;
    bool refuse(const QString& reason);
    [[nodiscard]] ObjectId heightsFrom() const;
    [[nodiscard]] QString lastHeight(const linework::Line3D& shown) const;
    [[nodiscard]] linework::HeightRule ruleFor(const Snap& snap) const;
    [[nodiscard]] bool enterPlace(const PlaceEntry& entry);
    [[nodiscard]] bool enterRule(const QString& text);
    /// Of the next side, for its end; an Error when there is no such arc.
    [[nodiscard]] Result<std::optional<geometry::Vec2>> throughFor(geometry::Vec2 place) const;
    void remember();
    void carry(const document::EditTrace& trace);
    /// Puts what is drawn into the project; false when there is nothing, or nothing that can be a line.
    bool commit();

    State state_;
    std::vector<State> before_;            ///< for stepping back
    std::vector<State> after_;             ///< for stepping forward again
    std::optional<ObjectId> heightsFrom_;  ///< chosen by its chip; else the surface that is meant
    NextSide next_;
    Held held_;
    std::optional<std::size_t> mending_;  ///< the drawn corner that is put right
    std::optional<Snap> hover_;
};

}  // namespace erdwerk::app
