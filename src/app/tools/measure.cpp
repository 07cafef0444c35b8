// Measures along clicks or typed places; what was measured can be kept as a 3D line.

#include "core/linework/measure.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "core/base/notation.h"
#include "core/operations/lines.h"

namespace erdwerk::app {

class MeasureTool : public Tool {
    Q_OBJECT
public:
    explicit MeasureTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool stepBack() override;
    bool stepForward() override;
    void complete() override;
    [[nodiscard]] std::optional<geometry::Vec2> origin() const override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;
    /// Of the places so far, with what is under the cursor as the next one.
    [[nodiscard]] linework::Measured measured() const;

private:
    [[nodiscard]] linework::MeasuredPlace placeOf(const Snap& snap) const;
    bool keep();
    std::vector<linework::MeasuredPlace> places_;
    std::vector<linework::MeasuredPlace> taken_;  ///< back by stepping, for stepping forward
    std::optional<Snap> hover_;
};

using linework::MeasuredPlace;

MeasureTool::MeasureTool(Session& session) : Tool(session, tr("Measure")) {}

QString MeasureTool::prompt() const {
    if (places_.empty()) return tr("Click where to measure from, or type a place");
    return places_.size() < 2
               ? tr("Click the next place, or type it")
               : tr("Click the next place; type 'keep' to keep it as a 3D line; Enter starts again");
}

QString MeasureTool::entryHint() const {
    return tr("48010.5, 91020.25   az 45.5 35.20   keep");
}

MeasuredPlace MeasureTool::placeOf(const Snap& snap) const {
    return {snap.place, snap.height ? snap.height : session_.derived().topHeight(snap.place)};
}

linework::Measured MeasureTool::measured() const {
    auto places = places_;
    if (hover_ && !places.empty() && !(hover_->place == places.back().plan))
        places.push_back(placeOf(*hover_));
    return linework::measure(places);
}

std::vector<Chip> MeasureTool::chips() const {
    const auto m = measured();
    if (m.legs.empty()) return {};
    const auto& display = session_.document().settings().display;
    const auto text = [](const std::string& s) { return QString::fromStdString(s); };
    std::vector<Chip> out{{tr("Length"), text(formatLength(m.run, display))}};
    const auto& leg = m.legs.back();
    if (m.legs.size() > 1) out.push_back({tr("Last"), text(formatLength(leg.run, display))});
    out.push_back({tr("Towards"), text(formatDirection(leg.azimuth, display))});
    if (leg.rise) out.push_back({tr("Rise"), text(formatRise(*leg.rise, display))});
    if (const auto grade = leg.grade())
        out.push_back({tr("Grade"), text(formatGrade(*grade, display) + ", " + formatRatio(*grade))});
    if (m.legs.size() > 1 && m.rise) out.push_back({tr("Rise in all"), text(formatRise(*m.rise, display))});
    if (m.legs.size() > 1) out.push_back({tr("Area"), text(formatArea(m.area, display))});
    return out;
}

void MeasureTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void MeasureTool::clickAt(const Snap& snap) {
    if (!places_.empty() && places_.back().plan == snap.place) return;
    places_.push_back(placeOf(snap));
    taken_.clear();
    hover_.reset();
    Q_EMIT changed();
}

bool MeasureTool::keep() {
    if (places_.size() < 2) {
        Q_EMIT failed(tr("Click at least two places first"));
        return false;
    }
    std::vector<geometry::Vec2> corners;
    std::vector<std::optional<double>> heights;
    for (const auto& p : places_) {
        corners.push_back(p.plan);
        heights.push_back(p.height);
    }
    const auto done = session_.edit(tr("Keep what was measured"),
                                    operations::drawLine(linework::lineThrough(corners, heights)));
    if (!done) return false;
    places_.clear();
    taken_.clear();
    Q_EMIT made(done.made);
    Q_EMIT changed();
    return true;
}

bool MeasureTool::enter(const QString& text) {
    if (text.trimmed().compare(tr("keep"), Qt::CaseInsensitive) == 0) return keep();
    const auto place = parsePlaceEntry(text.toStdString(), session_.document().settings().display);
    if (!place) {
        Q_EMIT failed(QString::fromStdString(place.error().text));
        return false;
    }
    Snap snap;
    if (const auto* course = std::get_if<TypedCourse>(&*place)) {
        if (places_.empty()) {
            Q_EMIT failed(tr("A course needs a place to start from"));
            return false;
        }
        snap.place = places_.back().plan + geometry::directionOf(course->azimuth) * course->distance;
    } else {
        const auto& position = std::get<TypedPosition>(*place);
        snap.place = {position.easting, position.northing};
        snap.height = position.height;
    }
    clickAt(snap);
    return true;
}

bool MeasureTool::stepBack() {
    if (places_.empty()) return false;
    taken_.push_back(places_.back());
    places_.pop_back();
    Q_EMIT changed();
    return true;
}

bool MeasureTool::stepForward() {
    if (taken_.empty()) return false;
    places_.push_back(taken_.back());
    taken_.pop_back();
    Q_EMIT changed();
    return true;
}

void MeasureTool::complete() {
    if (places_.empty()) return Q_EMIT finished();
    places_.clear();
    taken_.clear();
    Q_EMIT changed();
}

std::optional<geometry::Vec2> MeasureTool::origin() const {
    return places_.empty() ? std::nullopt : std::optional(places_.back().plan);
}

void MeasureTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    auto places = places_;
    if (places.empty()) return;
    if (hover_) places.push_back({hover_->place, {}});
    geometry::Path path;
    for (std::size_t i = 0; i + 1 < places.size(); ++i)
        if (!(places[i].plan == places[i + 1].plan)) path.push_back({places[i].plan, places[i + 1].plan, {}});
    const auto m = measured();
    const auto& display = session_.document().settings().display;
    QString figure;
    if (!m.legs.empty()) {
        const auto& leg = m.legs.back();
        figure = QString::fromStdString(formatLength(leg.run, display) + "  " +
                                        formatDirection(leg.azimuth, display));
        if (leg.rise) figure += QStringLiteral("  ") + QString::fromStdString(formatRise(*leg.rise, display));
    }
    paintGhostPath(painter, view, path, figure);
}

namespace tools {

ToolDeclaration measure() {
    return {.id = QStringLiteral("measure"),
            .text = tr("Measure"),
            .help = tr("Distance, bearing, height difference, grade and area along clicks"),
            .icon = {"M4 16 L16 4 L20 8 L8 20 Z", "M8 12 L10 14 M11 9 L13 11 M14 6 L16 8"},
            .key = QStringLiteral("Ctrl+M"),
            .whyNot = anOpenProject,
            .make = [](Session& s) { return std::make_unique<MeasureTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "measure.moc"
