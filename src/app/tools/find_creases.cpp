#include "app/tools/find_creases.h"

#include "app/base/theme.h"
#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/operations/dense.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;
using terrain::CreaseKind;

FindCreasesTool::FindCreasesTool(Session& session) : Tool(session, tr("Find creases")) {
    source_ = currentDense(session);
    area_ = derive::boundsOf(session.derived(), source_);
    if (const auto line = session.selected<objects::Line>()) {
        const auto* resolved = derive::Derived::in(session.derived().lines, *line);
        if (resolved != nullptr && resolved->closed) {
            areaLine_ = *line;
            area_ = {};
            for (const auto& s : resolved->path) area_.add(boundsOf(s));
        }
    }
    const double spacing = derive::spacingOf(session.derived(), source_);
    options_.minAngle = 25 * degree;
    options_.minLength = std::max(8.0, 10 * spacing);
    options_.deviation = std::max(0.05, spacing / 2);
    worker_ = std::make_unique<LatestWorker<Request, BendAnswer>>(
        this,
        [](const Request& request, const std::atomic<bool>& cancel) -> std::optional<BendAnswer> {
            BendAnswer answer;
            answer.field = request.field;
            if (!answer.field) answer = bendOf(request.bend, cancel);
            if (answer.field) {
                Context context;
                context.cancelFlag = &cancel;
                answer.found = terrain::findCreases(*answer.field, request.options, context);
            }
            if (cancel) return std::nullopt;
            return answer;
        },
        [this](BendAnswer answer) {
            answer_ = std::move(answer);
            waiting_ = false;
            off_.assign(answer_.found.size(), false);
            Q_EMIT changed();
        },
        [this](const QString& reason) {
            if (reason.isEmpty()) return;
            waiting_ = false;
            Q_EMIT failed(reason);
        });
    ask();
}

FindCreasesTool::~FindCreasesTool() {
    worker_.reset();
}

void FindCreasesTool::ask() {
    waiting_ = true;
    worker_->request({{session_.snapshot(), source_, area_}, answer_.field, options_}, true);
    Q_EMIT changed();
}

QString FindCreasesTool::prompt() const {
    if (!source_) return tr("There is no cloud, raster or surface to look at");
    if (working()) return tr("Working out where the ground bends…");
    if (!answer_.problem.empty()) return QString::fromStdString(answer_.problem);
    if (answer_.found.empty()) return tr("No crest or toe is that sharp and long; type other figures");
    return tr("Click lines out or in; Enter keeps them");
}

QString FindCreasesTool::entryHint() const {
    return tr("angle 30   ·   length 8   ·   deviation 0.1");
}

std::vector<Chip> FindCreasesTool::chips() const {
    const auto number = [](double v) {
        return QString::fromStdString(formatExact(std::round(v * 1e3) / 1e3));
    };
    std::size_t crests = 0;
    std::size_t toes = 0;
    for (std::size_t i = 0; i < answer_.found.size(); ++i)
        if (!off_[i]) ++(answer_.found[i].kind == CreaseKind::Crest ? crests : toes);
    return {{tr("In"), QString::fromStdString(session_.document().nameOf(areaLine_ ? areaLine_ : source_))},
            {tr("Bend from"), number(options_.minAngle / degree) + QStringLiteral("°")},
            {tr("Length from"), number(options_.minLength)},
            {tr("Simplified to"), number(options_.deviation)},
            {tr("Kept"), working() ? QString() : tr("%1 crests, %2 toes").arg(crests).arg(toes)}};
}

std::size_t FindCreasesTool::creaseAt(Vec2 place) const {
    std::size_t best = answer_.found.size();
    double least = 12 * pixel_;
    for (std::size_t i = 0; i < answer_.found.size(); ++i) {
        const auto& places = answer_.found[i].places;
        for (std::size_t k = 1; k < places.size(); ++k) {
            const auto near =
                geometry::nearestOn({{places[k - 1].plan(), places[k].plan(), std::nullopt}}, place);
            if (std::abs(near->distance) < least) {
                least = std::abs(near->distance);
                best = i;
            }
        }
    }
    return best;
}

void FindCreasesTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void FindCreasesTool::clickAt(const Snap& snap) {
    const std::size_t at = creaseAt(snap.place);
    if (at == answer_.found.size()) {
        Q_EMIT failed(tr("There is no found line here"));
        return;
    }
    off_[at] = !off_[at];
    Q_EMIT changed();
}

bool FindCreasesTool::enter(const QString& text) {
    const QStringList words = text.toLower().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    const double value = typedFigure(words.value(1)).value_or(-1);
    const bool angle = words.value(0) == tr("angle");
    const bool length = words.value(0) == tr("length");
    const bool deviation = words.value(0) == tr("deviation");
    if (words.size() != 2 || !(angle || length || deviation)) {
        Q_EMIT failed(tr("Type angle, length or deviation and a figure"));
        return false;
    }
    if (angle ? value < 1 || value > 90 : !(value > 0)) {
        Q_EMIT failed(angle ? tr("The angle is from 1 to 90 degrees") : tr("The figure must be above 0"));
        return false;
    }
    if (angle) options_.minAngle = value * degree;
    if (length) options_.minLength = value;
    if (deviation) options_.deviation = value;
    ask();
    return true;
}

void FindCreasesTool::complete() {
    if (working()) return;
    std::vector<terrain::Crease> kept;
    for (std::size_t i = 0; i < answer_.found.size(); ++i)
        if (!off_[i]) kept.push_back(answer_.found[i]);
    if (kept.empty()) {
        Q_EMIT failed(tr("There is nothing to keep"));
        return;
    }
    const auto done = session_.edit(tr("Find %1 creases").arg(kept.size()), operations::addCreases(kept));
    if (!done) return;
    std::vector<Ref> refs;
    for (const ObjectId id : done.made) refs.push_back({id, std::nullopt});
    session_.selection().set(std::move(refs));
    Q_EMIT finished();
}

void FindCreasesTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    pixel_ = 1 / view.scale;
    const std::size_t none = answer_.found.size();
    const std::size_t under = hover_ ? creaseAt(hover_->place) : none;
    for (std::size_t i = 0; i < answer_.found.size(); ++i) {
        const auto& crease = answer_.found[i];
        QColor colour = off_[i] ? theme::inkQuiet : theme::clay;
        if (off_[i]) colour.setAlpha(110);
        paintCrease(painter, view, crease.places, crease.closed, crease.kind, colour, under == i ? 4 : 2.4);
    }
    if (under == none) return;
    const auto& crease = answer_.found[under];
    painter.setFont(theme::font(12, true));
    painter.setPen(theme::clay.darker(115));
    painter.drawText(view.toPicture(hover_->place) + QPointF(14, -10),
                     tr("%1, %2, bends %3°")
                         .arg(kindText(crease.kind),
                              QString::fromStdString(formatLength(creaseLength(crease.places, crease.closed),
                                                                  session_.document().settings().display)))
                         .arg(crease.bend / degree, 0, 'f', 0));
}

namespace tools {

ToolDeclaration findCreases() {
    return {.id = QStringLiteral("find-creases"),
            .text = tr("Find creases"),
            .help = tr("All crests and toes of a cloud, raster or surface, as a preview"),
            .icon = {"M3 18 L9 8 L16 8 L21 18", "M9 8 L16 8 M9 8 V5 M16 8 V5"},
            .key = QStringLiteral("F"),
            .whyNot = denseHeights,
            .suits = isOneOf<objects::Surface, objects::Cloud>,
            .make = [](Session& s) { return std::make_unique<FindCreasesTool>(s); }};
}

}  // namespace tools

}  // namespace erdwerk::app

#include "moc_find_creases.cpp"
