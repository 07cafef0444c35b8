#include "app/tools/give_heights.h"

#include "app/base/theme.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/shape.h"

namespace erdwerk::app {

GiveHeightsTool::GiveHeightsTool(Session& session) : Tool(session, tr("Give heights")) {
    for (const Ref& ref : session.selection()) {
        const auto& document = session.document();
        if (document.get<objects::Line>(ref.object) != nullptr) lines_.push_back(ref.object);
        if (document.get<objects::Group>(ref.object) == nullptr) continue;
        for (const ObjectId id : document.all<objects::Line>())
            if (document.find(id)->group == ref.object) lines_.push_back(id);
    }
    std::sort(lines_.begin(), lines_.end());
    lines_.erase(std::unique(lines_.begin(), lines_.end()), lines_.end());
    chosen_ = lines_.size() > 1;
    connect(&session_, &Session::resultsChanged, this, &GiveHeightsTool::find);
    find();
}

void GiveHeightsTool::find() {
    seen_ = session_.results();
    if (!chosen_) lines_ = operations::flatLines(*seen_, options_.tolerance);
    std::erase_if(lines_, [this](ObjectId id) { return seen_->document.find(id) == nullptr; });
    auto found = operations::heightsFor(*seen_, lines_, options_, prefix_);
    problem_ = found ? std::string() : found.error().text;
    found_ = found ? std::move(*found) : linework::HeightsGiven{};
    Q_EMIT changed();
    Q_EMIT tableChanged();
}

QString GiveHeightsTool::prompt() const {
    if (!problem_.empty()) return QString::fromStdString(problem_);
    if (found_.given.empty()) return tr("Nothing gives these lines a height; try a larger tolerance");
    return tr("Rings get a height; Enter gives them");
}

QString GiveHeightsTool::entryHint() const {
    return tr("tolerance 0.2   ·   prefix k   ·   otherwise 318");
}

std::vector<Chip> GiveHeightsTool::chips() const {
    const auto& display = session_.document().settings().display;
    std::size_t line = 0;
    std::size_t point = 0;
    std::size_t text = 0;
    std::size_t differs = 0;
    for (const auto& g : found_.given) {
        line += g.sort == linework::GiverSort::Line ? 1 : 0;
        point += g.sort == linework::GiverSort::Point ? 1 : 0;
        text += g.sort == linework::GiverSort::Text ? 1 : 0;
        differs += g.differs.empty() ? 0 : 1;
    }
    std::vector<Chip> out{{tr("Lines"), QString::number(lines_.size())},
                          {tr("Lines, points, texts give"), tr("%1, %2, %3").arg(line).arg(point).arg(text)},
                          {tr("Without"), QString::number(found_.missed.size())},
                          {tr("Within"), QString::fromStdString(formatLength(options_.tolerance, display))}};
    if (differs > 0) out.push_back({tr("Differ"), QString::number(differs)});
    if (!found_.unused.empty())
        out.push_back({tr("Texts without use"), QString::number(found_.unused.size())});
    if (!prefix_.empty()) out.push_back({tr("Prefix"), QString::fromStdString(prefix_)});
    if (options_.otherwise)
        out.push_back({tr("Otherwise"), QString::fromStdString(formatHeight(options_.otherwise, display))});
    return out;
}

void GiveHeightsTool::hoverAt(const Snap& snap) {
    hover_ = snap.place;
    Q_EMIT changed();
}

void GiveHeightsTool::clickAt(const Snap&) {
    Q_EMIT failed(tr("Nothing is to be clicked here; Enter gives the heights, Esc leaves the lines flat"));
}

bool GiveHeightsTool::enter(const QString& text) {
    const QString word = text.trimmed().section(QLatin1Char(' '), 0, 0).toLower();
    const QString rest = text.trimmed().section(QLatin1Char(' '), 1).trimmed();
    const auto figure = typedFigure(rest);
    if (word == tr("tolerance") && figure && *figure > 0) {
        options_.tolerance = *figure;
    } else if (word == tr("otherwise") && (figure || rest == tr("nothing"))) {
        options_.otherwise = figure;
    } else if (word == tr("prefix")) {
        prefix_ = rest.toStdString();
    } else {
        Q_EMIT failed(
            tr("Type tolerance and a figure above 0, prefix and a text, or otherwise and a height"));
        return false;
    }
    find();
    return true;
}

void GiveHeightsTool::complete() {
    if (found_.given.empty()) {
        Q_EMIT failed(tr("Nothing gives these lines a height"));
        return;
    }
    const std::size_t missed = found_.missed.size();
    if (!session_.edit(tr("Give heights"), operations::giveHeights(seen_, lines_, found_))) return;
    Q_EMIT session_.message(missed == 0 ? tr("All lines have their heights")
                                        : tr("%n places are left without height; the findings list them",
                                             nullptr, static_cast<int>(missed)),
                            false);
    Q_EMIT finished();
}

std::optional<ToolTable> GiveHeightsTool::table() const {
    const auto& display = session_.document().settings().display;
    const auto name = [this](std::size_t line) {
        return line < lines_.size() ? QString::fromStdString(seen_->document.nameOf(lines_[line]))
                                    : QString();
    };
    ToolTable out;
    out.title = tr("Heights to give: %1, %2 without").arg(found_.given.size()).arg(found_.missed.size());
    out.columns = {tr("Line"), tr("Station"), tr("Gets"), tr("From"), tr("Others say")};
    // What needs a decision comes first.
    for (const auto& m : found_.missed)
        out.rows.push_back(
            {{name(m.line), {}, tr("nothing"), QString::fromStdString(m.why), {}}, m.at, true});
    for (const auto& u : found_.unused)
        out.rows.push_back({{tr("none"),
                             {},
                             tr("nothing"),
                             tr("text '%1'").arg(QString::fromStdString(u.text)),
                             QString::fromStdString(u.why)},
                            u.at,
                            true});
    for (const bool differing : {true, false})
        for (const auto& g : found_.given) {
            if (g.differs.empty() == differing) continue;
            QStringList others;
            for (const auto& [from, height] : g.differs)
                others << QString::fromStdString(from + ": " + formatHeight(height, display));
            out.rows.push_back({{name(g.line), QString::fromStdString(formatStation(g.distance, display)),
                                 QString::fromStdString(formatHeight(g.height, display)),
                                 QString::fromStdString(g.from), others.join(QStringLiteral("; "))},
                                g.at,
                                differing});
        }
    return out;
}

void GiveHeightsTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    const auto& display = session_.document().settings().display;
    painter.setFont(theme::font(11));
    painter.setBrush(Qt::NoBrush);
    const linework::GivenHeight* near = nullptr;
    double best = 14;
    for (const auto& g : found_.given) {
        const QPointF at = view.toPicture(g.at);
        painter.setPen(QPen(g.differs.empty() ? theme::spruce : theme::ochre, 2));
        painter.drawEllipse(at, 5, 5);
        if (view.scale > 4)
            painter.drawText(at + QPointF(7, 4), QString::fromStdString(formatHeight(g.height, display)));
        if (!hover_) continue;
        const QPointF d = at - view.toPicture(*hover_);
        if (std::hypot(d.x(), d.y()) < best) {
            best = std::hypot(d.x(), d.y());
            near = &g;
        }
    }
    painter.setPen(QPen(theme::madder, 2));
    for (const auto& m : found_.missed) {
        const QPointF at = view.toPicture(m.at);
        painter.drawLine(at - QPointF(4, 4), at + QPointF(4, 4));
        painter.drawLine(at - QPointF(4, -4), at + QPointF(4, -4));
    }
    painter.setPen(QPen(theme::ochre, 1.5, Qt::DotLine));
    for (const auto& u : found_.unused) painter.drawEllipse(view.toPicture(u.at), 8, 8);
    if (near == nullptr) return;
    QString text = QString::fromStdString(formatHeight(near->height, display) + " from " + near->from);
    for (const auto& [from, height] : near->differs)
        text += QString::fromStdString("; " + from + " says " + formatHeight(height, display));
    const QPointF at = view.toPicture(near->at) + QPointF(12, -16);
    const QRectF room(at, QSizeF(painter.fontMetrics().horizontalAdvance(text) + 10, 18));
    painter.fillRect(room, theme::panel);
    painter.setPen(theme::ink);
    painter.drawText(room, Qt::AlignCenter, text);
}

namespace tools {

ToolDeclaration giveHeights() {
    return {.id = QStringLiteral("give-heights"),
            .text = tr("Give heights"),
            .help = tr("Flat lines get heights from lines that cross them, points, texts and leaders"),
            .icon = {"M3 19 H14 L20 13", "M8 15 V6 M5 9 L8 6 L11 9 M16 8 H21"},
            .key = QStringLiteral("V"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = [](Session& s) { return std::make_unique<GiveHeightsTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "moc_give_heights.cpp"
