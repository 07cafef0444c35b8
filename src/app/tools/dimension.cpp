// Makes dimensions: what is measured is picked, then where the dimension line lies.

#include <array>
#include <cmath>

#include "app/base/theme.h"
#include "app/kinds/dimension_drawing.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/derive/measured.h"
#include "core/document/edit_trace.h"
#include "core/objects/dimension.h"
#include "core/operations/dimensions.h"

namespace erdwerk::app {

class DimensionTool : public Tool {
    Q_OBJECT
public:
    explicit DimensionTool(Session& session);
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
    /// Everything is picked but where the line lies.
    [[nodiscard]] bool placing() const;
    /// The dimension as it would be with its line through a place.
    [[nodiscard]] objects::Dimension through(geometry::Vec2 place) const;
    void carry(const document::EditTrace& trace);
    void make(const objects::Dimension& dimension);

    annotate::DimensionKind kind_ = annotate::DimensionKind::Aligned;
    std::optional<Angle> azimuth_;  ///< typed
    std::vector<objects::Anchor> anchors_;
    QStringList names_;
    bool enough_ = false;  ///< no more places of a chain
    std::optional<Snap> hover_;
};

using annotate::DimensionKind;
using geometry::Vec2;
using objects::Anchor;

namespace {

struct Word {
    DimensionKind kind;
    const char* word;
};
constexpr std::array words{Word{DimensionKind::Aligned, QT_TR_NOOP("distance")},
                           Word{DimensionKind::Linear, QT_TR_NOOP("direction")},
                           Word{DimensionKind::Chain, QT_TR_NOOP("chain")},
                           Word{DimensionKind::Angle, QT_TR_NOOP("angle")},
                           Word{DimensionKind::Delta, QT_TR_NOOP("turn")},
                           Word{DimensionKind::Radius, QT_TR_NOOP("radius")},
                           Word{DimensionKind::Slope, QT_TR_NOOP("grade")},
                           Word{DimensionKind::Height, QT_TR_NOOP("rise")}};

}  // namespace

DimensionTool::DimensionTool(Session& session) : Tool(session, tr("Dimension")) {
    connect(&session_, &Session::edited, this, &DimensionTool::carry);
}

/// What was picked follows edits; what is gone is to be picked again.
void DimensionTool::carry(const document::EditTrace& trace) {
    for (std::size_t i = anchors_.size(); i-- > 0;) {
        anchors_[i] = objects::carried(anchors_[i], trace);
        const auto& a = anchors_[i];
        if (a.on != Anchor::On::Gone && (!a.object || session_.document().find(a.object))) continue;
        anchors_.erase(anchors_.begin() + static_cast<std::ptrdiff_t>(i));
        names_.removeAt(static_cast<qsizetype>(i));
        enough_ = false;
    }
    hover_.reset();
    Q_EMIT changed();
}

bool DimensionTool::placing() const {
    return anchors_.size() >= annotate::anchorsOf(kind_) && (kind_ != DimensionKind::Chain || enough_);
}

QString DimensionTool::prompt() const {
    if (placing()) return tr("Click where the dimension line is to lie, or type how far off");
    switch (kind_) {
        case DimensionKind::Angle:
            return anchors_.empty() ? tr("Click the first side of the angle") : tr("Click its other side");
        case DimensionKind::Delta:
        case DimensionKind::Radius:
            return tr("Click an arc");
        case DimensionKind::Chain:
            return anchors_.size() < 2 ? tr("Click the places of the chain one after the other")
                                       : tr("Click the next place of the chain; Enter ends it");
        default:
            return anchors_.empty() ? tr("Click where the dimension begins") : tr("Click where it ends");
    }
}

QString DimensionTool::entryHint() const {
    if (placing()) return tr("-5 m to the left, 5 to the right");
    return tr("distance · direction 45 · chain · angle · turn · radius · grade · rise");
}

QStringList DimensionTool::completions() const {
    QStringList out;
    for (const Word& w : words) out << tr(w.word);
    return out;
}

std::vector<Chip> DimensionTool::chips() const {
    std::vector<Chip> out{{tr("Measures"), dimensionWord(kind_)}};
    const std::size_t count = std::max(annotate::anchorsOf(kind_), anchors_.size());
    for (std::size_t i = 0; i < count; ++i)
        out.push_back({i == 0 ? (count == 1 ? tr("Arc") : tr("From")) : tr("To"),
                       i < anchors_.size() ? names_[static_cast<qsizetype>(i)] : QString()});
    return out;
}

void DimensionTool::repick(std::size_t chip) {
    if (chip == 0) {
        kind_ = DimensionKind::Aligned;
        azimuth_.reset();
    }
    const std::size_t keep = chip == 0 ? 0 : chip - 1;
    if (anchors_.size() > keep) anchors_.resize(keep);
    names_ = names_.mid(0, static_cast<qsizetype>(keep));
    enough_ = false;
    Q_EMIT changed();
}

bool DimensionTool::accepts(const Snap& snap) const {
    if (placing()) return true;
    const auto& d = session_.document();
    const bool line = d.get<objects::Line>(snap.ref.object) != nullptr ||
                      d.get<objects::Alignment>(snap.ref.object) != nullptr ||
                      d.get<objects::Parcel>(snap.ref.object) != nullptr;
    return line || (!annotate::isOfSides(kind_) && d.get<objects::Points>(snap.ref.object) != nullptr);
}

void DimensionTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void DimensionTool::clickAt(const Snap& snap) {
    if (placing()) return make(through(snap.place));
    const bool sides = annotate::isOfSides(kind_);
    const auto anchor = operations::anchorOn(session_.derived(), snap.ref.object,
                                             sides ? std::nullopt : snap.ref.part, snap.place);
    if (sides) {
        const auto side = operations::anchorSide(session_.derived(), anchor);
        const bool arc = side && arcOf(*side);
        if (!side || (kind_ != DimensionKind::Angle && !arc)) {
            Q_EMIT failed(tr("There is nothing here that fits. %1.").arg(prompt()));
            return;
        }
    }
    anchors_.push_back(anchor);
    names_ << snap.name;
    Q_EMIT changed();
}

objects::Dimension DimensionTool::through(Vec2 place) const {
    objects::Dimension out{kind_, anchors_, {0, azimuth_}, {}};
    if (kind_ == DimensionKind::Linear && !azimuth_) {
        // Beside the two places it measures north, above and below them east.
        geometry::Box box;
        for (const auto& a : anchors_) box.add(a.place);
        const Vec2 off = place - box.centre();
        const bool beside = std::abs(off.x) - box.width() / 2 > std::abs(off.y) - box.height() / 2;
        out.line.azimuth = Angle::degrees(beside ? 0 : 90);
    }
    if (const auto offset = operations::offsetThrough(session_.document(), out, place))
        out.line.offset = *offset;
    return out;
}

void DimensionTool::make(const objects::Dimension& dimension) {
    const auto done =
        session_.edit(tr("Dimension"), operations::newDimension(kind_, dimension.anchors, dimension.line));
    if (!done) return;
    anchors_.clear();
    names_.clear();
    enough_ = false;
    Q_EMIT made(done.made);
    Q_EMIT changed();
}

bool DimensionTool::enter(const QString& text) {
    const QString typed = text.trimmed();
    for (const Word& w : words) {
        const QString word = tr(w.word);
        if (typed != word && !typed.startsWith(word + QLatin1Char(' '))) continue;
        const auto rest = typed.mid(word.size()).trimmed();
        const auto azimuth = parseAngle(rest.toStdString());
        if (!rest.isEmpty() && (!azimuth || w.kind == DimensionKind::Radius)) {
            Q_EMIT failed(tr("Behind %1 comes an azimuth, clockwise from north").arg(word));
            return false;
        }
        // Sides are no places: what was picked for the one does not do for the other.
        if (annotate::isOfSides(kind_) || annotate::isOfSides(w.kind)) repick(1);
        kind_ = w.kind;
        azimuth_ = rest.isEmpty() ? std::nullopt : azimuth;
        Q_EMIT changed();
        return true;
    }
    if (placing()) {
        const auto offset = typedFigure(typed);
        if (!offset) {
            Q_EMIT failed(tr("Type how far off the line is to lie"));
            return false;
        }
        auto made = through(hover_ ? hover_->place : anchors_.front().place);
        made.line.offset = *offset;
        make(made);
        return true;
    }
    if (!annotate::isOfSides(kind_))
        if (const auto place = tools::typedPlace(session_, typed)) {
            clickAt(*place);
            return true;
        }
    Q_EMIT failed(tr("Type E, N, or what to measure: %1").arg(completions().join(QStringLiteral(", "))));
    return false;
}

bool DimensionTool::stepBack() {
    if (enough_) {
        enough_ = false;
    } else if (!anchors_.empty()) {
        anchors_.pop_back();
        names_.removeLast();
    } else {
        return false;
    }
    Q_EMIT changed();
    return true;
}

void DimensionTool::complete() {
    if (kind_ == DimensionKind::Chain && !enough_ && anchors_.size() > 1) {
        enough_ = true;
        Q_EMIT changed();
    } else if (placing() && hover_) {
        make(through(hover_->place));
    }
}

void DimensionTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    painter.setPen(QPen(theme::clay, 1.6));
    painter.setBrush(Qt::NoBrush);
    for (const auto& a : anchors_)
        if (const auto at = operations::anchorPlace(session_.derived(), a))
            painter.drawEllipse(view.toPicture(*at), 5, 5);
    if (!hover_ || !placing()) return;
    const auto dimension = through(hover_->place);
    const annotate::DimensionStyle style;
    const auto measured = derive::measured(session_.derived(), dimension, style);
    for (const auto& span : measured.spans) {
        const double mm = 1 / millimetresPerPixel;
        const auto drawing = annotate::drawn(span, style, 0, mm / view.scale);
        paintDimensionLines(painter, view, 1, drawing, style, theme::clay);
        painter.setFont(theme::font(12, true));
        painter.drawText(view.toPicture(pointAt(drawing.line.front(), 0.5)) + QPointF(6, -6),
                         QString::fromStdString(span.text));
    }
    if (!measured.problem.empty())
        painter.drawText(view.toPicture(hover_->place) + QPointF(12, -12),
                         QString::fromStdString(measured.problem));
}

namespace tools {

ToolDeclaration dimension() {
    return {.id = QStringLiteral("dimension"),
            .text = tr("Dimension"),
            .help = tr("Measures distances, angles, radii, grades and rises between things; it follows them"),
            .icon = {"M4 6 V18 M20 6 V18 M4 12 H20", "M8 9 L4 12 L8 15 M16 9 L20 12 L16 15"},
            .key = QStringLiteral("D"),
            .whyNot = anOpenProject,
            .suits = isOneOf<objects::Line, objects::Points, objects::Parcel, objects::Alignment>,
            .make = [](Session& s) { return std::make_unique<DimensionTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "dimension.moc"
