#pragma once
// A tool: says what it needs next, takes clicks and typed entries, shows its result before it is applied.

#include <QObject>
#include <QPainter>
#include <QString>
#include <optional>
#include <vector>

#include "app/base/session.h"
#include "app/plan/snap.h"
#include "app/plan/view_transform.h"
#include "core/geometry/path.h"

namespace erdwerk::app {

/// One pick, shown in the prompt line as "role: value".
struct Chip {
    QString role;
    QString value;  ///< empty while it is still to be picked
};

/// What a tool is about to do, row by row, beside its ghost.
struct ToolTable {
    struct Row {
        QStringList cells;
        std::optional<geometry::Vec2> at;  ///< where in plan
        bool trouble = false;
    };
    QString title;
    QStringList columns;
    std::vector<Row> rows;
};

class Tool : public QObject {
    Q_OBJECT
public:
    Tool(Session& session, QString title) : session_(session), title_(std::move(title)) {}

    [[nodiscard]] const QString& title() const { return title_; }
    /// One plain sentence: what is needed next.
    [[nodiscard]] virtual QString prompt() const = 0;
    /// What may be typed, shown in the empty entry; empty when nothing may.
    [[nodiscard]] virtual QString entryHint() const { return {}; }
    [[nodiscard]] virtual std::vector<Chip> chips() const { return {}; }
    /// Words the entry can be completed to.
    [[nodiscard]] virtual QStringList completions() const { return {}; }
    /// The chip is to be picked again; the others stay.
    virtual void repick(std::size_t chip) { (void)chip; }

    /// What the next pick can be; of several things in one place these come first.
    [[nodiscard]] virtual bool accepts(const Snap& snap) const {
        (void)snap;
        return true;
    }
    virtual void hoverAt(const Snap& snap) { (void)snap; }
    virtual void clickAt(const Snap& snap) = 0;
    /// Places that the tool itself has drawn and that can be picked up again: `ref` has no object, its part
    /// is the tool's own number. They come before all others.
    [[nodiscard]] virtual std::vector<Snap> ownPlaces() const { return {}; }
    /// A drag that begins at one of its own places: picks it up; what follows are hovers and a click.
    virtual void pickUp(const Snap& snap) { (void)snap; }
    /// Esc: true when it only ends something inside the tool.
    virtual bool escape() { return false; }
    /// Typed text; false (after failed()) when it cannot be read.
    virtual bool enter(const QString& text) {
        (void)text;
        return false;
    }
    /// Takes back the last step inside the tool; false when there is none.
    virtual bool stepBack() { return false; }
    virtual bool stepForward() { return false; }
    /// Enter without text, or a double click: applies what there is.
    virtual void complete() {}
    /// Esc, or another tool: what was finished is kept.
    virtual void leave() {}
    /// Where the next stretch starts, for perpendicular snaps.
    [[nodiscard]] virtual std::optional<geometry::Vec2> origin() const { return std::nullopt; }
    /// Shown on the bench's page of tables while the tool runs; nothing when the ghost says it all.
    [[nodiscard]] virtual std::optional<ToolTable> table() const { return std::nullopt; }
    virtual void paintGhost(QPainter& painter, const ViewTransform& view) const {
        (void)painter;
        (void)view;
    }

Q_SIGNALS:
    void changed();       ///< prompt, chips or ghost
    void tableChanged();  ///< table()
    void finished();      ///< the tool has done its work
    void failed(const QString& reason);
    void made(std::vector<ObjectId> objects);  ///< new ones, by an edit of the tool

protected:
    Session& session_;

private:
    QString title_;
};

/// Draws a path as a ghost in clay, with its vertices and a figure at its end.
void paintGhostPath(QPainter& painter, const ViewTransform& view, const geometry::Path& path,
                    const QString& figure, bool arrows = false);

/// A typed figure; a comma is a decimal mark as well. Nothing when it is none.
std::optional<double> typedFigure(const QString& text);

}  // namespace erdwerk::app
