// Labels what is clicked: a side, a curve, a point, a control, a station, the ground, a parcel.

#include "app/base/theme.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "core/annotate/label_style.h"
#include "core/operations/labels.h"

namespace erdwerk::app {

class LabelTool : public Tool {
    Q_OBJECT
public:
    explicit LabelTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] QStringList completions() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    /// What a click there would label; nothing where there is nothing that fits.
    [[nodiscard]] std::optional<document::Edit> editAt(const Snap& snap) const;
    [[nodiscard]] std::optional<annotate::LabelKind> kindAt(const Snap& snap) const;

    std::optional<annotate::LabelKind> what_;  ///< none: whatever is clicked
    std::optional<Snap> hover_;
};

using annotate::LabelKind;

namespace {

/// What can be typed, and what the chip says of it.
struct Choice {
    LabelKind kind;
    const char* word;
    const char* said;
};
constexpr std::array choices{
    Choice{LabelKind::Segment, QT_TR_NOOP("side"), QT_TR_NOOP("sides and curves")},
    Choice{LabelKind::Point, QT_TR_NOOP("point"), QT_TR_NOOP("survey points")},
    Choice{LabelKind::Control, QT_TR_NOOP("control"), QT_TR_NOOP("controls of 3D lines")},
    Choice{LabelKind::Station, QT_TR_NOOP("station"), QT_TR_NOOP("stations")},
    Choice{LabelKind::Spot, QT_TR_NOOP("height"), QT_TR_NOOP("heights of the ground")},
    Choice{LabelKind::Slope, QT_TR_NOOP("slope"), QT_TR_NOOP("slopes of the ground")},
    Choice{LabelKind::Contour, QT_TR_NOOP("contour"), QT_TR_NOOP("contours")},
    Choice{LabelKind::Area, QT_TR_NOOP("area"), QT_TR_NOOP("areas of parcels")}};

const Choice& choiceOf(LabelKind kind) {
    for (const Choice& c : choices)
        if (c.kind == kind) return c;
    return choices.front();
}

}  // namespace

LabelTool::LabelTool(Session& session) : Tool(session, tr("Label")) {}

QString LabelTool::prompt() const {
    if (!what_) return tr("Click what to label: a side, a curve, a point, or the ground for its height");
    switch (*what_) {
        case LabelKind::Point:
            return tr("Click a survey point");
        case LabelKind::Control:
            return tr("Click a corner or a grade point of a 3D line");
        case LabelKind::Station:
            return tr("Click on or beside an alignment");
        case LabelKind::Spot:
            return tr("Click the ground where its height is to stand");
        case LabelKind::Slope:
            return tr("Click the ground where its slope is to stand");
        case LabelKind::Contour:
            return tr("Click a contour");
        case LabelKind::Area:
            return tr("Click a side of a parcel");
        default:
            return tr("Click a side or a curve");
    }
}

QString LabelTool::entryHint() const {
    return tr("control · station · height · slope · contour · area · all");
}

QStringList LabelTool::completions() const {
    QStringList out{tr("all")};
    for (const Choice& c : choices) out << tr(c.word);
    return out;
}

std::vector<Chip> LabelTool::chips() const {
    return {{tr("Labels"), what_ ? tr(choiceOf(*what_).said) : tr("whatever is clicked")}};
}

void LabelTool::repick(std::size_t) {
    what_.reset();
    Q_EMIT changed();
}

bool LabelTool::accepts(const Snap& snap) const {
    return kindAt(snap).has_value();
}

std::optional<LabelKind> LabelTool::kindAt(const Snap& snap) const {
    const auto& document = session_.document();
    const bool point = document.get<objects::Points>(snap.ref.object) != nullptr && snap.ref.part;
    const auto* line = document.get<objects::Line>(snap.ref.object);
    const bool alignment = document.get<objects::Alignment>(snap.ref.object) != nullptr;
    const bool parcel = document.get<objects::Parcel>(snap.ref.object) != nullptr;
    const bool ground = session_.derived().topSurface(snap.place) != nullptr;
    if (!what_) {
        if (point) return LabelKind::Point;
        if (line != nullptr || alignment || parcel) return LabelKind::Segment;
        return ground && !snap.ref.object ? std::optional(LabelKind::Spot) : std::nullopt;
    }
    bool fits = false;
    switch (*what_) {
        case LabelKind::Point:
            fits = point;
            break;
        case LabelKind::Control:
            fits = line != nullptr && snap.ref.part.has_value();
            break;
        case LabelKind::Station:
            // Beside one the nearest is meant.
            fits = alignment || !document.all<objects::Alignment>().empty();
            break;
        case LabelKind::Spot:
        case LabelKind::Slope:
        case LabelKind::Contour:
            fits = ground;
            break;
        case LabelKind::Area:
            fits = parcel;
            break;
        default:
            fits = line != nullptr || alignment || parcel;
    }
    return fits ? what_ : std::nullopt;
}

std::optional<document::Edit> LabelTool::editAt(const Snap& snap) const {
    const auto kind = kindAt(snap);
    if (!kind) return std::nullopt;
    switch (*kind) {
        case LabelKind::Control:
            return operations::labelControl(snap.ref.object, *snap.ref.part);
        case LabelKind::Area:
            return operations::labelArea(snap.ref.object);
        case LabelKind::Station: {
            const auto at = operations::stationUnder(session_.derived(), snap.ref.object, snap.place, 0.01);
            if (!at) return std::nullopt;
            return operations::labelStation(at->alignment, at->distance, at->offset);
        }
        case LabelKind::Spot:
        case LabelKind::Slope:
        case LabelKind::Contour:
            return operations::labelPlace(operations::surfaceAt(session_.derived(), snap.place), *kind,
                                          snap.place);
        default:
            return operations::makeLabel(snap.ref.object, snap.ref.part, snap.segment);
    }
}

void LabelTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void LabelTool::clickAt(const Snap& snap) {
    const auto edit = editAt(snap);
    if (!edit) {
        Q_EMIT failed(tr("There is nothing here that fits. %1.").arg(prompt()));
        return;
    }
    if (const auto done = session_.edit(tr("Label"), *edit)) Q_EMIT made(done.made);
}

bool LabelTool::enter(const QString& text) {
    const QString typed = text.trimmed().toLower();
    if (typed == tr("all")) {
        what_.reset();
        Q_EMIT changed();
        return true;
    }
    for (const Choice& c : choices)
        if (typed == tr(c.word)) {
            what_ = c.kind;
            Q_EMIT changed();
            return true;
        }
    Q_EMIT failed(tr("Type one of: %1").arg(completions().join(QStringLiteral(", "))));
    return false;
}

void LabelTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    if (!hover_ || !kindAt(*hover_)) return;
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme::clay, 1.6, Qt::DotLine));
    painter.drawEllipse(view.toPicture(hover_->place), 9, 9);
}

namespace tools {

ToolDeclaration label() {
    return {.id = QStringLiteral("label"),
            .text = tr("Label"),
            .help = tr("Labels a side, a point, a control, a station, the ground or a parcel; it follows"),
            .icon = {"M4 19 L20 19", "M7 14 L10 6 L13 14 M8.2 11 H11.8 M16 9 H19"},
            .key = QStringLiteral("L"),
            .whyNot = anOpenProject,
            .suits = isOneOf<objects::Line, objects::Points, objects::Parcel, objects::Alignment>,
            .make = [](Session& s) { return std::make_unique<LabelTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "label.moc"
