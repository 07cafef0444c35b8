// Rows beside a line: each a run and a height, shown while they are typed.

#include <set>

#include "app/base/theme.h"
#include "app/kinds/current.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/linework/offset.h"
#include "core/linework/offset_row.h"
#include "core/objects/offset_set.h"
#include "core/operations/derived_lines.h"

namespace erdwerk::app {

class OffsetRowsTool : public Tool {
    Q_OBJECT
public:
    explicit OffsetRowsTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
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
    [[nodiscard]] bool hasLine() const;
    void sideAt(geometry::Vec2 place);

    ObjectId line_;
    std::vector<linework::OffsetRow> rows_;
    std::vector<QString> typed_;
    linework::OffsetOptions options_;
    bool sideChosen_ = false;
    std::string set_;     ///< the name of the set that the rows are
    bool loose_ = false;  ///< the rows do not follow the line
    // The rows as they would be, and what they were worked out from.
    struct Ghost {
        std::shared_ptr<const derive::Derived> seen;
        ObjectId line;
        std::vector<linework::OffsetRow> rows;
        linework::OffsetOptions options;
        Result<std::vector<linework::Line3D>> made = std::vector<linework::Line3D>{};
    };
    mutable Ghost ghost_;
};

OffsetRowsTool::OffsetRowsTool(Session& session) : Tool(session, tr("Rows beside a line")) {
    if (const auto selected = session.selected<objects::Line>()) line_ = *selected;
}

bool OffsetRowsTool::hasLine() const {
    return derive::Derived::in(session_.derived().lines, line_) != nullptr;
}

QString OffsetRowsTool::prompt() const {
    if (!hasLine()) return tr("Pick the line that the rows run beside");
    if (rows_.empty()) return tr("Type a row: run, comma, height");
    return sideChosen_ ? tr("Type another row, or Enter makes them") : tr("Click on the side of the rows");
}

QString OffsetRowsTool::entryHint() const {
    return tr(
        "0.5,-2%  ·  3,3:1  ·  1,+0.12  ·  2,=  ·  left  ·  chained  ·  round  ·  loose  ·  set NAME  ·  "
        "save NAME");
}

std::vector<Chip> OffsetRowsTool::chips() const {
    QStringList rows;
    for (const QString& row : typed_) rows << row;
    std::vector<Chip> out{
        {tr("Line"), hasLine() ? QString::fromStdString(session_.document().nameOf(line_)) : QString()},
        {tr("Side"), options_.right ? tr("right") : tr("left")},
        {tr("Rows"), rows.join(QStringLiteral("   "))}};
    // What is usual takes no room.
    if (options_.chained) out.push_back({tr("Measured"), tr("from the row before")});
    if (options_.corners == linework::OutsideCorner::Round) out.push_back({tr("Corners"), tr("round")});
    if (loose_) out.push_back({tr("Follow"), tr("nothing")});
    return out;
}

void OffsetRowsTool::repick(std::size_t chip) {
    const auto all = chips();
    if (chip >= all.size()) return;
    const QString role = all[chip].role;
    if (role == tr("Line")) line_ = {};
    if (role == tr("Side")) {
        options_.right = !options_.right;
        sideChosen_ = true;
    }
    if (role == tr("Rows")) {
        rows_.clear();
        typed_.clear();
    }
    if (role == tr("Follow")) loose_ = false;
    if (role == tr("Measured")) options_.chained = false;
    if (role == tr("Corners")) options_.corners = linework::OutsideCorner::Mitre;
    Q_EMIT changed();
}

bool OffsetRowsTool::accepts(const Snap& snap) const {
    return hasLine() || session_.document().get<objects::Line>(snap.ref.object) != nullptr;
}

void OffsetRowsTool::sideAt(geometry::Vec2 place) {
    const auto* line = derive::Derived::in(session_.derived().lines, line_);
    const auto near = line == nullptr ? std::nullopt : geometry::nearestOn(line->path, place);
    if (near) options_.right = near->distance > 0;
}

void OffsetRowsTool::hoverAt(const Snap& snap) {
    if (!sideChosen_) sideAt(snap.place);
    Q_EMIT changed();
}

void OffsetRowsTool::clickAt(const Snap& snap) {
    if (!hasLine()) {
        if (!accepts(snap)) {
            Q_EMIT failed(tr("Pick a 3D line"));
            return;
        }
        line_ = snap.ref.object;
        session_.selection().set({{line_, std::nullopt}});
    } else {
        sideAt(snap.place);
        sideChosen_ = true;
    }
    Q_EMIT changed();
}

bool OffsetRowsTool::enter(const QString& text) {
    const QString word = text.trimmed().toLower();
    if (word == tr("left") || word == tr("right")) {
        options_.right = word == tr("right");
        sideChosen_ = true;
    } else if (word == tr("chained")) {
        options_.chained = !options_.chained;
    } else if (word.startsWith(tr("set "))) {
        const std::string name = text.trimmed().mid(4).trimmed().toStdString();
        const auto* set =
            session_.document().get<objects::OffsetSet>(session_.document().byName<objects::OffsetSet>(name));
        if (set == nullptr) {
            Q_EMIT failed(tr("There is no offset set named %1").arg(QString::fromStdString(name)));
            return false;
        }
        rows_ = set->rows;
        set_ = name;
        typed_.clear();
        for (const auto& row : rows_) typed_.push_back(QString::fromStdString(linework::rowText(row)));
        options_ = set->options;
        sideChosen_ = true;
    } else if (word.startsWith(tr("save "))) {
        const QString name = text.trimmed().mid(5).trimmed();
        if (!session_.edit(tr("Keep the rows as %1").arg(name),
                           operations::saveOffsetSet(name.toStdString(), {rows_, options_})))
            return false;
        set_ = name.toStdString();
        Q_EMIT session_.message(tr("The rows are kept as %1").arg(name), false);
    } else if (word == tr("loose")) {
        loose_ = !loose_;
    } else if (word == tr("round") || word == tr("mitre")) {
        options_.corners =
            word == tr("round") ? linework::OutsideCorner::Round : linework::OutsideCorner::Mitre;
    } else {
        auto row = linework::parseOffsetRow(text.trimmed().toStdString());
        if (!row) {
            Q_EMIT failed(QString::fromStdString(row.error().text));
            return false;
        }
        rows_.push_back(std::move(*row));
        set_.clear();
        typed_.push_back(text.trimmed());
    }
    Q_EMIT changed();
    return true;
}

bool OffsetRowsTool::stepBack() {
    if (!rows_.empty()) {
        rows_.pop_back();
        typed_.pop_back();
    } else if (sideChosen_) {
        sideChosen_ = false;
    } else {
        return false;
    }
    Q_EMIT changed();
    return true;
}

void OffsetRowsTool::complete() {
    if (!hasLine() || rows_.empty()) {
        Q_EMIT failed(tr("Pick a line and type a row first"));
        return;
    }
    const auto newest = [&] {
        std::set<ObjectId> ids;
        for (const ObjectId id : session_.document().all<objects::Line>()) ids.insert(id);
        return ids;
    };
    const auto before = newest();
    if (!session_.edit(tr("Rows beside %1").arg(QString::fromStdString(session_.document().nameOf(line_))),
                       operations::offsetRows(session_.results(), line_, rows_, options_,
                                              currentSurface(session_), loose_, set_)))
        return;
    std::vector<ObjectId> fresh;
    for (const ObjectId id : newest())
        if (before.count(id) == 0) fresh.push_back(id);
    Q_EMIT made(fresh);
    Q_EMIT finished();
}

void OffsetRowsTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    if (!hasLine() || rows_.empty()) return;
    // Once for each change, not for each picture.
    const auto seen = session_.results();
    if (ghost_.seen != seen || ghost_.line != line_ || ghost_.rows != rows_ || ghost_.options != options_)
        ghost_ = {seen, line_, rows_, options_,
                  operations::rowsOf(*seen, line_, rows_, options_, currentSurface(session_))};
    const auto& rows = ghost_.made;
    if (!rows) {
        painter.setPen(theme::madder);
        painter.drawText(QPointF(16, 30), QString::fromStdString(rows.error().text));
        return;
    }
    for (std::size_t i = 0; i < rows->size(); ++i)
        paintGhostPath(painter, view, planPath((*rows)[i]), typed_[i]);
}

namespace tools {

ToolDeclaration offsetRows() {
    return {.id = QStringLiteral("offset-rows"),
            .text = tr("Rows beside a line"),
            .help = tr("Lines at a run and a height beside a line, as many rows as are typed"),
            .icon = {"M4 20 C6 12 10 8 18 5", "M8 21 C10 15 13 12 20 9 M12 22 C14 18 16 15.5 21 13"},
            .key = QStringLiteral("O"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = [](Session& s) { return std::make_unique<OffsetRowsTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "offset_rows.moc"
