#include "app/tools/earthwork_tool.h"

#include <tuple>

#include "app/base/theme.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/earthwork/hachures.h"
#include "core/objects/line.h"
#include "core/operations/earthworks.h"

namespace erdwerk::app {

using objects::EarthworkSort;

EarthworkTool::EarthworkTool(Session& session, EarthworkSort sort, QString title)
    : Tool(session, std::move(title)) {
    object_.sort = sort;
    if (const auto selected = session.selected<objects::Line>()) setEdge(*selected);
}

bool EarthworkTool::hasEdge() const {
    return derive::Derived::in(session_.derived().lines, object_.edge) != nullptr;
}

void EarthworkTool::setEdge(ObjectId line) {
    const auto* object = session_.document().get<objects::Line>(line);
    if (object == nullptr || (!isBatter() && !object->line.closed)) return;
    object_.edge = line;
    object_.ground = operations::groundUnder(session_.derived(), line);
    if (object_.ground) return;
    const auto all = operations::possibleGrounds(session_.document());
    if (!all.empty()) object_.ground = all.front();
}

QString EarthworkTool::prompt() const {
    if (!hasEdge())
        return isBatter() ? tr("Pick the line that the slopes run from")
                          : tr("Pick the closed line that is the edge");
    if (isBatter() && !sideChosen_) return tr("Click on the side of the slopes");
    return tr("Type slopes, or Enter makes it");
}

QString EarthworkTool::entryHint() const {
    return isBatter()
               ? tr("2:1  ·  cut 1:1  ·  fill 3:1  ·  berm 103,2  ·  to 103  ·  rise -3  ·  distance 4  ·  "
                    "from 20 to 60  ·  round  ·  kind NAME  ·  save NAME")
               : tr("2:1  ·  cut 1:1  ·  fill 3:1  ·  berm +3,1.5  ·  round  ·  swell 1.2  ·  shrink 0.9  ·  "
                    "kind NAME  ·  save NAME");
}

QStringList EarthworkTool::completions() const {
    QStringList out{tr("left"), tr("right"), tr("round"), tr("mitre"), tr("surface")};
    for (const ObjectId id : session_.document().all<objects::BatterKind>())
        out << tr("kind ") + QString::fromStdString(session_.document().nameOf(id));
    return out;
}

std::vector<Chip> EarthworkTool::chips() const {
    const auto& document = session_.document();
    const auto& form = object_.form;
    const auto text = [](const std::string& s) { return QString::fromStdString(s); };
    std::vector<Chip> out{{tr("Edge"), hasEdge() ? text(document.nameOf(object_.edge)) : QString()}};
    if (isBatter()) out.push_back({tr("Side"), object_.right ? tr("right") : tr("left")});
    if (form.cut.empty() || form.fill.empty())
        out.push_back({form.cut.empty() ? tr("Fill") : tr("Cut"), text(form.cut + form.fill)});
    else
        out.push_back(
            {tr("Cut, fill"), form.cut == form.fill ? text(form.cut) : text(form.cut + ", " + form.fill)});
    const bool toGround = std::holds_alternative<earthwork::ToSurface>(form.target);
    out.push_back({tr("Runs"), toGround ? tr("to %1").arg(text(document.nameOf(object_.ground)))
                                        : text(earthwork::targetText(form.target))});
    // What is usual takes no room.
    if (!form.berms.empty()) out.push_back({tr("Berms"), text(earthwork::bermsText(form.berms))});
    if (form.corners == linework::OutsideCorner::Round) out.push_back({tr("Corners"), tr("round")});
    if (object_.stretch)
        out.push_back({tr("Stretch"),
                       text(formatExact(object_.stretch->from) + " to " + formatExact(object_.stretch->to))});
    if (object_.earth.swell != 1) out.push_back({tr("Swell"), text(formatExact(object_.earth.swell))});
    if (object_.earth.shrink != 1) out.push_back({tr("Shrink"), text(formatExact(object_.earth.shrink))});
    return out;
}

void EarthworkTool::repick(std::size_t chip) {
    const auto all = chips();
    if (chip >= all.size()) return;
    const QString role = all[chip].role;
    if (role == tr("Edge")) object_.edge = {};
    if (role == tr("Side")) {
        object_.right = !object_.right;
        sideChosen_ = true;
    }
    if (role == tr("Runs")) earthwork::setTarget(object_.form, earthwork::ToSurface{});
    if (role == tr("Berms")) object_.form.berms.clear();
    if (role == tr("Corners")) object_.form.corners = linework::OutsideCorner::Mitre;
    if (role == tr("Stretch")) object_.stretch.reset();
    if (role == tr("Swell")) object_.earth.swell = 1;
    if (role == tr("Shrink")) object_.earth.shrink = 1;
    Q_EMIT changed();
}

bool EarthworkTool::accepts(const Snap& snap) const {
    if (hasEdge()) return true;
    const auto* line = session_.document().get<objects::Line>(snap.ref.object);
    return line != nullptr && (isBatter() || line->line.closed);
}

void EarthworkTool::sideAt(geometry::Vec2 place) {
    const auto* line = derive::Derived::in(session_.derived().lines, object_.edge);
    const auto near = line == nullptr ? std::nullopt : geometry::nearestOn(line->path, place);
    if (near) object_.right = near->distance > 0;
}

void EarthworkTool::hoverAt(const Snap& snap) {
    if (isBatter() && hasEdge() && !sideChosen_) sideAt(snap.place);
    Q_EMIT changed();
}

void EarthworkTool::clickAt(const Snap& snap) {
    if (!hasEdge()) {
        if (!accepts(snap)) {
            Q_EMIT failed(isBatter() ? tr("Pick a 3D line") : tr("Pick a closed 3D line"));
            return;
        }
        setEdge(snap.ref.object);
        session_.selection().set({{object_.edge, std::nullopt}});
    } else if (isBatter()) {
        sideAt(snap.place);
        sideChosen_ = true;
    }
    Q_EMIT changed();
}

Result<void> EarthworkTool::takeKind(const std::string& name) {
    const auto& document = session_.document();
    const auto* kind = document.get<objects::BatterKind>(document.byName<objects::BatterKind>(name));
    if (kind == nullptr) return badInput("there is no kind of batter named " + name);
    object_.form = kind->form;
    return {};
}

Result<void> EarthworkTool::keepKind(const std::string& name) {
    if (!session_.edit(tr("Keep the batter as %1").arg(QString::fromStdString(name)),
                       operations::saveBatterKind(name, object_.form)))
        return badInput("it could not be kept");
    Q_EMIT session_.message(tr("The batter is kept as %1").arg(QString::fromStdString(name)), false);
    return {};
}

Result<void> EarthworkTool::setGround(const std::string& name) {
    const ObjectId id = session_.document().byName<objects::Surface>(name);
    if (!id) return badInput("there is no surface named " + name);
    object_.ground = id;
    earthwork::setTarget(object_.form, earthwork::ToSurface{});
    return {};
}

std::optional<Result<void>> EarthworkTool::setting(const QString& word, const std::string& rest) {
    auto& form = object_.form;
    const auto factor = [&](double& to) -> Result<void> {
        const auto figure = parseNumber(rest);
        if (!figure || !(*figure > 0)) return badInput("'" + rest + "' is no factor above 0");
        to = *figure;
        return {};
    };
    if (word == tr("cut") || word == tr("fill")) {
        rises_ = word == tr("cut");
        return earthwork::setSlope(form, rises_ ? earthwork::SlopeOf::Cut : earthwork::SlopeOf::Fill, rest);
    }
    if (word == tr("swell")) return factor(object_.earth.swell);
    if (word == tr("shrink")) return factor(object_.earth.shrink);
    if (word == tr("kind")) return takeKind(rest);
    if (word == tr("save")) return keepKind(rest);
    if (word == tr("ground")) return setGround(rest);
    if (word == tr("berm")) {
        auto berm = earthwork::parseBerm(rest);
        if (!berm) return tl::unexpected(berm.error());
        form.berms.push_back(*berm);
        return Result<void>{};
    }
    if (word == tr("from") && isBatter()) {
        auto stretch = operations::parseStretch(rest);
        if (!stretch) return tl::unexpected(stretch.error());
        object_.stretch = *stretch;
        return Result<void>{};
    }
    return std::nullopt;
}

bool EarthworkTool::enter(const QString& text) {
    const QString typed = text.trimmed();
    const QString word = typed.section(QLatin1Char(' '), 0, 0).toLower();
    const std::string rest = typed.section(QLatin1Char(' '), 1).trimmed().toStdString();
    const auto was = std::pair(object_, rises_);
    Result<void> done;
    if (auto set = setting(word, rest)) {
        done = std::move(*set);
    } else if (isBatter() && (word == tr("left") || word == tr("right"))) {
        object_.right = word == tr("right");
        sideChosen_ = true;
    } else if (word == tr("round") || word == tr("mitre")) {
        object_.form.corners =
            word == tr("round") ? linework::OutsideCorner::Round : linework::OutsideCorner::Mitre;
    } else if (auto target = earthwork::parseTarget(typed.toStdString()); isBatter() && target) {
        // To a distance one slope says the way: that of the fill, unless the cut's was typed last.
        earthwork::setTarget(object_.form, *target, rises_);
    } else if (auto slope = earthwork::parseSlope(typed.toStdString()); slope) {
        done = earthwork::setSlope(object_.form, earthwork::SlopeOf::Both, typed.toStdString());
    } else {
        done = badInput("'" + typed.toStdString() +
                        "' is none of what can be typed here: " + entryHint().toStdString());
    }
    if (!done) {
        std::tie(object_, rises_) = was;
        Q_EMIT failed(QString::fromStdString(done.error().text));
        return false;
    }
    before_.push_back(was);
    Q_EMIT changed();
    return true;
}

bool EarthworkTool::stepBack() {
    if (!before_.empty()) {
        std::tie(object_, rises_) = before_.back();
        before_.pop_back();
    } else if (sideChosen_) {
        sideChosen_ = false;
    } else if (hasEdge()) {
        object_.edge = {};
    } else {
        return false;
    }
    Q_EMIT changed();
    return true;
}

void EarthworkTool::complete() {
    if (!hasEdge()) {
        Q_EMIT failed(tr("Pick the edge first"));
        return;
    }
    if (const auto& made = preview(); !made || !made->problem.empty()) {
        Q_EMIT failed(QString::fromStdString(made ? made->problem : made.error().text));
        return;
    }
    std::vector<ObjectId> before = session_.document().all<objects::Earthwork>();
    if (!session_.edit(title(), operations::addEarthwork(object_))) return;
    std::vector<ObjectId> fresh;
    for (const ObjectId id : session_.document().all<objects::Earthwork>())
        if (std::find(before.begin(), before.end(), id) == before.end()) fresh.push_back(id);
    Q_EMIT made(fresh);
    Q_EMIT finished();
}

const Result<derive::EarthworkResult>& EarthworkTool::preview() const {
    // Once for each change, not for each picture.
    const auto seen = session_.results();
    if (ghost_.seen != seen || !(ghost_.object == object_))
        ghost_ = {seen, object_, derive::buildEarthwork(object_, derive::basisOf(*seen, object_))};
    return ghost_.made;
}

void EarthworkTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    if (!hasEdge()) return;
    const auto& made = preview();
    if (!made || !made->problem.empty()) {
        painter.setPen(theme::madder);
        painter.drawText(QPointF(16, 30), QString::fromStdString(made ? made->problem : made.error().text));
        return;
    }
    const auto line = [&](const std::vector<geometry::Vec3>& chain) {
        QPolygonF shape;
        for (const auto& p : chain) shape << view.toPicture(p.plan());
        painter.drawPolyline(shape);
    };
    painter.setPen(QPen(theme::clay, 1.6, Qt::DashLine));
    for (const auto& chain : made->batter.daylight) line(chain);
    painter.setPen(QPen(theme::clay, 0.8));
    if (made->faces)
        for (const auto& h : earthwork::hachures(made->batter, *made->faces, 7 / view.scale, 14 / view.scale))
            painter.drawLine(view.toPicture(h.from), view.toPicture(h.to));
    painter.setPen(QPen(theme::madder, 2.4, Qt::DotLine));
    for (const auto& open : made->batter.open) line({open.start, open.end});
    if (!made->ground || made->batter.edge.empty()) return;
    const auto volume = [](double v) { return QString::fromStdString(formatFixed(v, 1)); };
    const QString unit = QString::fromUtf8(unitSymbol(session_.document().settings().display.unit).data()) +
                         QStringLiteral("³");
    QString figure =
        tr("cut %1, fill %2 %3").arg(volume(made->volumes.cut), volume(made->volumes.fill), unit);
    if (!made->batter.open.empty()) figure += tr("; not reached along the dotted part");
    const QPointF at = view.toPicture(made->batter.edge.front().plan()) + QPointF(12, -26);
    const QRectF room(at, QSizeF(painter.fontMetrics().horizontalAdvance(figure) + 12, 20));
    painter.fillRect(room, theme::panel);
    painter.setPen(theme::ink);
    painter.drawText(room, Qt::AlignCenter, figure);
}

namespace tools {

namespace {

ToolDeclaration declared(EarthworkSort sort, const char* id, const QString& text, const QString& help,
                         theme::Drawing icon, const char* key) {
    return {.id = QString::fromLatin1(id),
            .text = text,
            .help = help,
            .icon = std::move(icon),
            .key = QString::fromLatin1(key),
            .whyNot = aSurfaceAndALine,
            .suits = isOneOf<objects::Line>,
            .make = [sort, text](Session& s) { return std::make_unique<EarthworkTool>(s, sort, text); }};
}

}  // namespace

ToolDeclaration batter() {
    return declared(EarthworkSort::Batter, "batter", tr("Batter"),
                    tr("Slopes from a line to the ground, to a height, a rise or a distance"),
                    {"M3 7 H21 M4 19 H20", "M6 7 L8 16 M11 7 L12 13 M15 7 L17 16"}, "Shift+B");
}

ToolDeclaration pad() {
    return declared(EarthworkSort::Pad, "pad", tr("Pad"),
                    tr("A closed line and all within it, with slopes round it to the ground"),
                    {"M7 8 H17 V16 H7 Z", "M3 4 L7 8 M21 4 L17 8 M3 20 L7 16 M21 20 L17 16"}, "Shift+P");
}

ToolDeclaration pond() {
    return declared(EarthworkSort::Pond, "pond", tr("Pond"),
                    tr("A floor with slopes up to the ground, and what it holds at each height"),
                    {"M3 6 L8 18 H16 L21 6", "M6 11 C8 9.5 10 12.5 12 11 C14 9.5 16 12.5 18 11"}, "Shift+O");
}

}  // namespace tools
}  // namespace erdwerk::app

#include "moc_earthwork_tool.cpp"
