#include "app/tools/give_heights.h"

#include "app/base/theme.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/shape.h"

namespace erdwerk::app {

namespace {

/// The lines of a group, or all.
std::vector<ObjectId> linesOf(const document::Document& document, ObjectId group) {
    std::vector<ObjectId> out;
    for (const ObjectId id : document.all<objects::Line>())
        if (!group || document.find(id)->group == group) out.push_back(id);
    return out;
}

}  // namespace

GiveHeightsTool::GiveHeightsTool(Session& session) : Tool(session, tr("Give heights")) {
    seen_ = session_.results();
    const auto& document = session.document();
    for (const Ref& ref : session.selection()) {
        std::vector<ObjectId> lines;
        if (document.get<objects::Line>(ref.object) != nullptr) lines.push_back(ref.object);
        if (document.get<objects::Group>(ref.object) != nullptr) lines = linesOf(document, ref.object);
        for (const ObjectId id : lines) {
            auto& side = isFlat(id) ? sides_.taking : sides_.giving;
            if (std::find(side.begin(), side.end(), id) == side.end()) side.push_back(id);
        }
    }
    connect(&session_, &Session::resultsChanged, this, &GiveHeightsTool::find);
    find();
}

bool GiveHeightsTool::isFlat(ObjectId line) const {
    return operations::isFlat(*seen_, line, options_);
}

void GiveHeightsTool::find() {
    seen_ = session_.results();
    for (auto* side : {&sides_.taking, &sides_.giving})
        std::erase_if(*side, [this](ObjectId id) { return seen_->document.find(id) == nullptr; });
    found_ = {};
    steep_.clear();
    problem_.clear();
    if (!sides_.taking.empty()) {
        auto found = operations::heightsFor(*seen_, {sides_.taking, sides_.giving, options_, prefix_});
        if (found)
            found_ = std::move(*found);
        else
            problem_ = found.error().text;
        steep_ = operations::tooSteep(*seen_, sides_.taking, found_);
    }
    Q_EMIT changed();
    Q_EMIT tableChanged();
}

QString GiveHeightsTool::prompt() const {
    if (sides_.taking.empty())
        return tr("Pick the lines that are to get heights, or type 'for all', or 'for' and a group");
    if (!problem_.empty()) return QString::fromStdString(problem_);
    if (found_.given.empty())
        return tr("Pick the lines that give heights, or type 'from all', or 'from' and a group");
    return tr("Rings get a height; Enter gives them");
}

QString GiveHeightsTool::entryHint() const {
    return tr(
        "for all   ·   from Kerbs   ·   tolerance 0.2   ·   prefix k   ·   otherwise 318   ·   flat none");
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
    std::vector<Chip> out{
        {tr("For lines"), QString::number(sides_.taking.size())},
        {tr("From lines"), QString::number(sides_.giving.size())},
        {tr("Flat is"),
         options_.flat ? QString::fromStdString(formatHeight(options_.flat, display)) : tr("no height")},
        {tr("Lines, points, texts give"), tr("%1, %2, %3").arg(line).arg(point).arg(text)},
        {tr("Without"), QString::number(found_.missed.size())},
        {tr("Within"), QString::fromStdString(formatLength(options_.tolerance, display))}};
    if (!steep_.empty()) out.push_back({tr("Too steep"), QString::number(steep_.size())});
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

bool GiveHeightsTool::accepts(const Snap& snap) const {
    return session_.document().get<objects::Line>(snap.ref.object) != nullptr;
}

void GiveHeightsTool::put(std::vector<ObjectId> lines, bool taking) {
    before_.push_back(sides_);
    std::sort(lines.begin(), lines.end());
    (taking ? sides_.taking : sides_.giving) = std::move(lines);
    find();
}

void GiveHeightsTool::toggle(ObjectId line) {
    const bool taking = isFlat(line);
    auto next = taking ? sides_.taking : sides_.giving;
    const auto at = std::find(next.begin(), next.end(), line);
    if (at == next.end())
        next.push_back(line);
    else
        next.erase(at);
    put(std::move(next), taking);
}

void GiveHeightsTool::clickAt(const Snap& snap) {
    if (!accepts(snap)) {
        Q_EMIT failed(tr("Pick lines: those without heights get them, the others give theirs"));
        return;
    }
    toggle(snap.ref.object);
}

bool GiveHeightsTool::stepBack() {
    if (before_.empty()) return false;
    sides_ = std::move(before_.back());
    before_.pop_back();
    find();
    return true;
}

/// "all", "none", or the name of a group or of a line.
bool GiveHeightsTool::enterSide(bool taking, const QString& name) {
    const auto& document = session_.document();
    std::vector<ObjectId> lines;
    if (name == tr("all")) {
        lines = taking ? operations::flatLines(*seen_, options_) : linesOf(document, {});
        if (!taking) std::erase_if(lines, [this](ObjectId id) { return isFlat(id); });
    } else if (name != tr("none")) {
        const ObjectId group = document.byName<objects::Group>(name.toStdString());
        const ObjectId line = document.byName<objects::Line>(name.toStdString());
        if (!group && !line) {
            Q_EMIT failed(tr("There is no group or line '%1'").arg(name));
            return false;
        }
        lines = group ? linesOf(document, group) : std::vector<ObjectId>{line};
        std::erase_if(lines, [&](ObjectId id) { return isFlat(id) != taking; });
        if (lines.empty()) {
            Q_EMIT failed(taking ? tr("'%1' has no line without heights").arg(name)
                                 : tr("'%1' has no line with heights").arg(name));
            return false;
        }
    }
    put(std::move(lines), taking);
    return true;
}

bool GiveHeightsTool::enter(const QString& text) {
    const QString word = text.trimmed().section(QLatin1Char(' '), 0, 0).toLower();
    const QString rest = text.trimmed().section(QLatin1Char(' '), 1).trimmed();
    const auto figure = typedFigure(rest);
    if (word == tr("for") && !rest.isEmpty()) return enterSide(true, rest);
    if (word == tr("from") && !rest.isEmpty()) return enterSide(false, rest);
    if (word == tr("flat") && (figure || rest == tr("none"))) {
        options_.flat = figure;
        find();
        return true;
    }
    if (word == tr("tolerance") && figure && *figure > 0) {
        options_.tolerance = *figure;
    } else if (word == tr("otherwise") && (figure || rest == tr("nothing"))) {
        options_.otherwise = figure;
    } else if (word == tr("prefix")) {
        prefix_ = rest.toStdString();
    } else {
        Q_EMIT failed(
            tr("Type for or from with all or a group, tolerance and a figure above 0, prefix and a text, "
               "otherwise and a height, or flat and a height or none"));
        return false;
    }
    find();
    return true;
}

void GiveHeightsTool::complete() {
    if (found_.given.empty()) {
        Q_EMIT failed(sides_.taking.empty() ? tr("Pick the lines that are to get heights first")
                                            : tr("Nothing gives these lines a height"));
        return;
    }
    const std::size_t missed = found_.missed.size();
    if (!session_.edit(tr("Give heights"), operations::giveHeights(seen_, sides_.taking, found_))) return;
    Q_EMIT session_.message(missed == 0 ? tr("All lines have their heights")
                                        : tr("%n places are left without height; the findings list them",
                                             nullptr, static_cast<int>(missed)),
                            false);
    Q_EMIT finished();
}

std::optional<ToolTable> GiveHeightsTool::table() const {
    const auto& display = session_.document().settings().display;
    const auto name = [this](std::size_t line) {
        return line < sides_.taking.size()
                   ? QString::fromStdString(seen_->document.nameOf(sides_.taking[line]))
                   : QString();
    };
    ToolTable out;
    out.title = tr("Heights to give: %1, %2 without").arg(found_.given.size()).arg(found_.missed.size());
    out.columns = {tr("Line"), tr("Station"), tr("Gets"), tr("From"), tr("Others say")};
    // What needs a decision comes first.
    for (const auto& s : steep_) {
        const auto& path = seen_->lines.at(sides_.taking[s.line])->path;
        out.rows.push_back({{name(s.line),
                             QString::fromStdString(formatStation(s.from, display)),
                             tr("too steep"),
                             QString::fromStdString(formatGrade(s.grade, display)),
                             {}},
                            geometry::positionAt(path, s.from).place,
                            true});
    }
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
    painter.setPen(QPen(theme::ochre, 4));
    for (const auto& s : steep_) {
        const auto& path = seen_->lines.at(sides_.taking[s.line])->path;
        QPolygonF stretch;
        constexpr int pieces = 24;
        for (int k = 0; k <= pieces; ++k)
            stretch << view.toPicture(
                geometry::positionAt(path, s.from + (s.to - s.from) * k / pieces).place);
        painter.drawPolyline(stretch);
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
