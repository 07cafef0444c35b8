#pragma once
// Tools that are a few picks and one core operation, described by data.

#include <functional>

#include "app/plan/tool.h"

namespace erdwerk::app {

/// VertexInHand: while a line is selected, only of that. Typed: a figure or a name, nothing that can be
/// clicked.
enum class Accept { Line, LineOrAlignment, LinePlace, Vertex, VertexInHand, Point, Place, Typed };

struct PickStep {
    QString role;
    QString prompt;
    Accept accept = Accept::Line;
};

using Picks = std::vector<Snap>;

struct PickSpec {
    QString title = {};  ///< also the name of the edit in the history
    std::vector<PickStep> steps = {};
    /// The edit for a full set of picks.
    std::function<document::Edit(const Session&, const Picks&)> apply = {};
    /// In its place, for one that may take longer than a frame: it is worked out on a worker.
    std::function<document::LongEdit(const Session&, const Picks&)> applyLong = {};
    /// What is to be settled, or agreed to, before a full set of picks is applied; empty: nothing. Enter
    /// agrees; what is typed is read by `typed` and is one more pick.
    std::function<QString(const Session&, const Picks&)> asks = {};
    /// Reads what is typed to a question, else `typed` does.
    std::function<Result<Snap>(const Session&, const QString&)> answered = {};
    /// The first pick of the next round, after these; Enter without text passes on to it as well.
    std::function<std::optional<Snap>(const Session&, const Picks&)> next = {};
    bool repeats = true;  ///< goes on with the first pick afterwards
    QString entryHint = {};
    /// Typed text for steps that are typed, and for places; the pick, or an Error. What else is picked can be
    /// typed in any case: a line by its name, a place on it by E, N or its distance, a point by its number.
    std::function<Result<Snap>(const Session&, const QString&)> typed = {};
    /// Draws what would come of the picks so far (the last one being the hover); without it the changed
    /// lines are shown as they would be.
    std::function<void(QPainter&, const ViewTransform&, const Session&, const Picks&)> ghost = {};
};

class PickTool : public Tool {
    Q_OBJECT
public:
    PickTool(Session& session, PickSpec spec);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] QStringList completions() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    void complete() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] std::size_t current() const;
    [[nodiscard]] bool fits(const Snap& snap, Accept accept) const;
    [[nodiscard]] ObjectId lineInHand() const;
    [[nodiscard]] Result<Snap> typedPick(const QString& text) const;
    [[nodiscard]] Result<Snap> typedOnLine(const QString& text, bool vertex) const;
    void take(const Snap& snap);
    void carry(const document::EditTrace& trace);
    [[nodiscard]] QString question() const;
    void settle(const Outcome& done, const Picks& picks);
    void applyPicks(const std::optional<Snap>& answer = {});
    void paintChange(QPainter& painter, const ViewTransform& view, const Picks& picks) const;
    [[nodiscard]] std::optional<std::vector<Snap>> picksWith(const std::optional<Snap>& last) const;

    PickSpec spec_;
    std::vector<std::optional<Snap>> picks_;
    std::optional<Snap> hover_;
};

}  // namespace erdwerk::app
