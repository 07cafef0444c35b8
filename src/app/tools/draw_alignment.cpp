// An alignment by its PIs, or from loose lines.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/objects/alignment.h"
#include "core/operations/routes.h"
#include "core/route/chain.h"

namespace erdwerk::app {

namespace {

using geometry::Vec2;

/// Words before a figure: "radius 60" gives 60.
std::optional<QString> after(const QString& text, const QString& word) {
    const QString t = text.trimmed();
    if (!t.startsWith(word, Qt::CaseInsensitive)) return std::nullopt;
    if (t.size() > word.size() && !t[word.size()].isSpace()) return std::nullopt;
    return t.mid(word.size()).trimmed();
}

class DrawAlignment final : public Tool {
public:
    explicit DrawAlignment(Session& session) : Tool(session, tr("Draw an alignment")) {}

    [[nodiscard]] QString prompt() const override {
        if (pis_.empty()) return tr("Click where it begins, or type the place");
        if (pis_.size() == 1) return tr("Click the next PI, or type it");
        return tr("Click the next PI; type a radius for the curves; Enter ends it");
    }
    [[nodiscard]] QString entryHint() const override {
        return tr("48010.5, 91020.25   az 45.5 35.20   radius 60   spiral 20");
    }
    [[nodiscard]] std::vector<Chip> chips() const override {
        const auto& display = session_.document().settings().display;
        const auto text = [&](double v) { return QString::fromStdString(formatLength(v, display)); };
        std::vector<Chip> out{{tr("Radius"), radius_ > 0 ? text(radius_) : tr("bare corners")}};
        if (spiral_ > 0) out.push_back({tr("Spirals"), text(spiral_)});
        if (const auto path = route::pathOf(withHover()))
            out.push_back({tr("Length"), text(geometry::lengthOf(*path))});
        else if (withHover().size() > 1)
            out.push_back({tr("Trouble"), QString::fromStdString(path.error().text)});
        return out;
    }
    [[nodiscard]] QStringList completions() const override {
        return {QStringLiteral("radius "), QStringLiteral("spiral ")};
    }
    void hoverAt(const Snap& snap) override {
        hover_ = snap.place;
        Q_EMIT changed();
    }
    void clickAt(const Snap& snap) override { add(snap.place); }

    bool enter(const QString& text) override {
        for (const auto& [word, figure] : {std::pair{tr("radius"), &radius_}, {tr("spiral"), &spiral_}}) {
            const auto rest = after(text, word);
            if (!rest) continue;
            const auto value = rest->isEmpty() ? std::optional(0.0) : typedFigure(*rest);
            if (!value || *value < 0) {
                Q_EMIT failed(tr("'%1' is no length").arg(*rest));
                return false;
            }
            *figure = *value;
            // What is drawn already and still has no curve of its own takes it as well.
            for (auto& pi : pis_) shape(pi);
            Q_EMIT changed();
            return true;
        }
        const auto place = parsePlaceEntry(text.toStdString(), session_.document().settings().display);
        if (!place) {
            Q_EMIT failed(QString::fromStdString(place.error().text));
            return false;
        }
        if (const auto* course = std::get_if<TypedCourse>(&*place)) {
            if (pis_.empty()) {
                Q_EMIT failed(tr("A course needs a place to start from"));
                return false;
            }
            return add(pis_.back().place + geometry::directionOf(course->azimuth) * course->distance);
        }
        const auto& position = std::get<TypedPosition>(*place);
        return add({position.easting, position.northing});
    }
    bool stepBack() override {
        if (pis_.empty()) return false;
        taken_.push_back(pis_.back());
        pis_.pop_back();
        Q_EMIT changed();
        return true;
    }
    bool stepForward() override {
        if (taken_.empty()) return false;
        pis_.push_back(taken_.back());
        taken_.pop_back();
        Q_EMIT changed();
        return true;
    }
    void complete() override {
        if (keep()) Q_EMIT finished();
    }
    void leave() override {
        if (pis_.size() > 1) keep();
    }
    [[nodiscard]] std::optional<Vec2> origin() const override {
        return pis_.empty() ? std::nullopt : std::optional(pis_.back().place);
    }
    void paintGhost(QPainter& painter, const ViewTransform& view) const override {
        const auto pis = withHover();
        painter.setPen(QPen(theme::inkQuiet, 1, Qt::DotLine));
        for (std::size_t k = 1; k < pis.size(); ++k)
            painter.drawLine(view.toPicture(pis[k - 1].place), view.toPicture(pis[k].place));
        if (const auto path = route::pathOf(pis))
            paintGhostPath(painter, view, *path,
                           QString::fromStdString(formatStation(geometry::lengthOf(*path),
                                                                session_.document().settings().display)),
                           true);
    }

private:
    void shape(route::Pi& pi) const {
        pi.radius = radius_;
        pi.spiralIn = pi.spiralOut = radius_ > 0 ? spiral_ : 0;
    }
    /// The ends have no curve.
    static std::vector<route::Pi> ended(std::vector<route::Pi> pis) {
        if (pis.empty()) return pis;
        pis.front() = {pis.front().place};
        pis.back() = {pis.back().place};
        return pis;
    }
    [[nodiscard]] std::vector<route::Pi> withHover() const {
        auto pis = pis_;
        if (hover_ && !pis.empty() && !(pis.back().place == *hover_)) pis.push_back({*hover_});
        return ended(std::move(pis));
    }
    bool add(Vec2 place) {
        if (!pis_.empty() && pis_.back().place == place) return true;
        auto pis = pis_;
        pis.push_back({place});
        shape(pis.back());
        if (pis.size() > 1)
            if (const auto path = route::pathOf(ended(pis)); !path) {
                Q_EMIT failed(QString::fromStdString(path.error().text));
                return false;
            }
        pis_ = std::move(pis);
        taken_.clear();
        hover_.reset();
        Q_EMIT changed();
        return true;
    }
    bool keep() {
        if (pis_.size() < 2) {
            Q_EMIT failed(tr("An alignment has at least two PIs"));
            return false;
        }
        objects::Alignment drawn;
        drawn.pis = ended(pis_);
        const auto done =
            session_.edit(tr("Draw an alignment"), operations::addAlignment({}, std::move(drawn)));
        if (!done) return false;
        pis_.clear();
        Q_EMIT this->made(done.made);
        return true;
    }

    std::vector<route::Pi> pis_;
    std::vector<route::Pi> taken_;
    std::optional<Vec2> hover_;
    double radius_ = 0;
    double spiral_ = 0;
};

class ChainLines final : public Tool {
public:
    explicit ChainLines(Session& session) : Tool(session, tr("Alignment from lines")) {
        for (const Ref& r : session.selection())
            if (session.document().get<objects::Line>(r.object) != nullptr &&
                std::find(lines_.begin(), lines_.end(), r.object) == lines_.end())
                lines_.push_back(r.object);
    }
    [[nodiscard]] QString prompt() const override {
        if (lines_.empty()) return tr("Pick the lines and arcs, in any order; the first gives the direction");
        return tr("Pick further lines, or press Enter; 'turn' runs it the other way");
    }
    [[nodiscard]] QString entryHint() const override { return tr("turn   gap 0.05   hide   away   keep"); }
    [[nodiscard]] std::vector<Chip> chips() const override {
        std::vector<Chip> out;
        if (!lines_.empty()) out.push_back({tr("Lines"), QString::number(lines_.size())});
        const auto joined = chain();
        if (!lines_.empty() && !joined)
            out.push_back({tr("Trouble"), QString::fromStdString(joined.error().text)});
        if (joined) {
            const auto& display = session_.document().settings().display;
            out.push_back({tr("Length"),
                           QString::fromStdString(formatLength(geometry::lengthOf(joined->path), display))});
            if (!joined->closed.empty())
                out.push_back({tr("Gaps closed"),
                               tr("%1, up to %2")
                                   .arg(joined->closed.size())
                                   .arg(QString::fromStdString(formatLength(joined->largestGap, display)))});
            if (route::runsAgainstUsual(joined->path))
                out.push_back({tr("Runs"), tr("east to west or north to south")});
        }
        out.push_back(
            {tr("Lines are"), options_.sources == operations::SourceLines::Keep ? tr("kept") : tr("hidden")});
        return out;
    }
    [[nodiscard]] bool accepts(const Snap& snap) const override {
        return session_.document().get<objects::Line>(snap.ref.object) != nullptr;
    }
    void clickAt(const Snap& snap) override {
        if (!accepts(snap)) return;
        const auto it = std::find(lines_.begin(), lines_.end(), snap.ref.object);
        if (it != lines_.end())
            lines_.erase(it);
        else
            lines_.push_back(snap.ref.object);
        Q_EMIT changed();
    }
    bool enter(const QString& text) override {
        const QString word = text.trimmed().toLower();
        if (word == tr("turn")) {
            options_.turned = !options_.turned;
        } else if (word == tr("hide")) {
            options_.sources = operations::SourceLines::Hide;
        } else if (word == tr("away")) {
            options_.sources = operations::SourceLines::PutAway;
        } else if (word == tr("keep")) {
            options_.sources = operations::SourceLines::Keep;
        } else if (const auto rest = after(text, tr("gap"))) {
            const auto value = typedFigure(*rest);
            if (!value || *value < 0) {
                Q_EMIT failed(tr("'%1' is no length").arg(*rest));
                return false;
            }
            options_.gap = *value;
        } else {
            Q_EMIT failed(tr("Type turn, gap and a length, hide, away or keep"));
            return false;
        }
        Q_EMIT changed();
        return true;
    }
    bool stepBack() override {
        if (lines_.empty()) return false;
        lines_.pop_back();
        Q_EMIT changed();
        return true;
    }
    void complete() override {
        if (lines_.empty()) {
            Q_EMIT failed(tr("Pick at least one line"));
            return;
        }
        const auto done = session_.edit(tr("Alignment from lines"),
                                        operations::alignmentFromLines(session_.results(), lines_, options_));
        if (!done) return;
        Q_EMIT made(done.made);
        Q_EMIT finished();
    }
    void paintGhost(QPainter& painter, const ViewTransform& view) const override {
        if (const auto joined = chain()) {
            paintGhostPath(painter, view, joined->path,
                           QString::fromStdString(formatStation(geometry::lengthOf(joined->path),
                                                                session_.document().settings().display)),
                           true);
            return;
        }
        for (const ObjectId id : lines_)
            if (const auto* line = derive::Derived::in(session_.derived().lines, id))
                paintGhostPath(painter, view, line->path, {});
    }

private:
    [[nodiscard]] Result<route::Chained> chain() const {
        if (lines_.empty()) return badInput("no lines");
        return operations::chainOf(session_.derived(), lines_, options_);
    }
    std::vector<ObjectId> lines_;
    operations::FromLines options_;
};

}  // namespace

namespace tools {

ToolDeclaration drawAlignment() {
    return {.id = QStringLiteral("draw-alignment"),
            .text = tr("Draw an alignment"),
            .help = tr("A centre line by its PIs, with radii and spirals"),
            .icon = {"M4 20 L9 13 C11 9 15 9 17 7 L20 4",
                     "M2 20 H6 M9 13 m-1.6 0 a1.6 1.6 0 1 0 3.2 0 a1.6 1.6 0 1 0 -3.2 0"},
            .key = QStringLiteral("D"),
            .whyNot = anOpenProject,
            .make = [](Session& session) { return std::make_unique<DrawAlignment>(session); }};
}

ToolDeclaration alignmentFromLines() {
    return {.id = QStringLiteral("alignment-from-lines"),
            .text = tr("Alignment from lines"),
            .help = tr("Chains lines and arcs, in whatever order and direction they were drawn"),
            .icon = {"M3 20 L8 14 M10 12 C12 9 14 9 16 8 M18 7 L21 3", "M8 14 L10 12 M16 8 L18 7"},
            .key = QStringLiteral("L"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = [](Session& session) { return std::make_unique<ChainLines>(session); }};
}

}  // namespace tools

}  // namespace erdwerk::app
