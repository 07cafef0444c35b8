// Divides a parcel by a line through two places, or so that a part has an area.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/operations/parcel_split.h"

namespace erdwerk::app {

namespace {

using operations::ParcelCut;

class SplitParcelTool final : public Tool {
public:
    explicit SplitParcelTool(Session& session) : Tool(session, tr("Split a parcel")) {
        for (const Ref& ref : session_.selection())
            if (session_.document().get<objects::Parcel>(ref.object) != nullptr) parcel_ = ref.object;
    }

    [[nodiscard]] QString prompt() const override {
        if (!parcel_) return tr("Click the parcel that is to be divided");
        if (cut_.by == ParcelCut::By::Parallel)
            return tr("Click the straight side beside which the part lies");
        if (cut_.by == ParcelCut::By::Through)
            return tr("Click the place on the boundary where the cut begins; the part lies on its right");
        return from_ ? tr("Click where the cut goes on to")
                     : tr("Click where the cut begins, or type the area of a part");
    }
    [[nodiscard]] QString entryHint() const override {
        if (!parcel_) return {};
        return cut_.by == ParcelCut::By::Line ? tr("1200 beside a side · through 1200 · a place")
                                              : tr("1200 · through 1200 · line");
    }
    [[nodiscard]] std::vector<Chip> chips() const override {
        std::vector<Chip> out{{tr("Parcel"), parcel_ ? nameOf(parcel_) : QString()}};
        if (cut_.by == ParcelCut::By::Line)
            out.push_back({tr("Cut"), from_ ? tr("from a place") : tr("through two places")});
        else
            out.push_back({tr("Area"), areaText(cut_.area)});
        return out;
    }
    void repick(std::size_t chip) override {
        if (chip == 0) parcel_ = {};
        cut_ = {};
        from_.reset();
        hover_.reset();
        Q_EMIT changed();
    }
    [[nodiscard]] bool accepts(const Snap& snap) const override {
        return parcel_ || session_.document().get<objects::Parcel>(snap.ref.object) != nullptr;
    }
    void hoverAt(const Snap& snap) override {
        hover_ = snap.place;
        Q_EMIT changed();
    }
    void clickAt(const Snap& snap) override {
        if (!parcel_) {
            if (session_.document().get<objects::Parcel>(snap.ref.object) == nullptr) {
                Q_EMIT failed(tr("That is no parcel"));
                return;
            }
            parcel_ = snap.ref.object;
            Q_EMIT changed();
            return;
        }
        if (cut_.by == ParcelCut::By::Line && !from_) {
            from_ = snap.place;
            Q_EMIT changed();
            return;
        }
        apply(cutAt(snap.place));
    }
    bool enter(const QString& text) override {
        const QString typed = text.trimmed();
        if (parcel_ && typed.compare(tr("line"), Qt::CaseInsensitive) == 0) {
            cut_ = {};
            Q_EMIT changed();
            return true;
        }
        QString figure = typed;
        const bool through = figure.startsWith(tr("through"), Qt::CaseInsensitive);
        if (through) figure = figure.mid(tr("through").size()).trimmed();
        if (const auto area = parseNumber(figure.toStdString()); parcel_ && area) {
            if (*area <= 0) {
                Q_EMIT failed(tr("An area is above 0"));
                return false;
            }
            cut_.by = through ? ParcelCut::By::Through : ParcelCut::By::Parallel;
            cut_.area = *area;
            from_.reset();
            Q_EMIT changed();
            return true;
        }
        const auto place = tools::typedPlace(session_, typed);
        if (!place) {
            Q_EMIT failed(tr("Type an area, 'through' and an area, or a place"));
            return false;
        }
        clickAt(*place);
        return true;
    }
    bool stepBack() override {
        if (from_) {
            from_.reset();
        } else if (cut_.by != ParcelCut::By::Line) {
            cut_ = {};
        } else {
            return false;
        }
        Q_EMIT changed();
        return true;
    }
    [[nodiscard]] std::optional<geometry::Vec2> origin() const override { return from_; }
    void paintGhost(QPainter& painter, const ViewTransform& view) const override {
        if (!parcel_ || !hover_) return;
        if (cut_.by == ParcelCut::By::Line && !from_) return;
        const auto parts = operations::splitOf(session_.derived(), parcel_, cutAt(*hover_));
        if (!parts) {
            if (from_) paintGhostPath(painter, view, {{*from_, *hover_, std::nullopt}}, {});
            return;
        }
        const auto area = [](const geometry::Path& path) { return std::abs(geometry::signedArea(path)); };
        paintGhostPath(painter, view, {parts->second.front()},
                       areaText(area(parts->first)) + QStringLiteral(" | ") + areaText(area(parts->second)));
    }

private:
    ObjectId parcel_;
    ParcelCut cut_;
    std::optional<geometry::Vec2> from_;
    std::optional<geometry::Vec2> hover_;

    [[nodiscard]] QString nameOf(ObjectId id) const {
        return QString::fromStdString(session_.document().nameOf(id));
    }
    [[nodiscard]] QString areaText(double area) const {
        return QString::fromStdString(formatArea(area, session_.document().settings().display));
    }
    [[nodiscard]] ParcelCut cutAt(geometry::Vec2 place) const {
        ParcelCut out = cut_;
        out.from = from_.value_or(place);
        out.to = place;
        return out;
    }
    void apply(const ParcelCut& cut) {
        session_.waitForResults();
        const auto split = session_.edit(tr("Split %1").arg(nameOf(parcel_)),
                                         operations::splitParcel(session_.results(), parcel_, cut));
        if (!split) return;
        Q_EMIT made(split.made);
        Q_EMIT finished();
    }
};

}  // namespace

namespace tools {

ToolDeclaration splitParcel() {
    return {.id = QStringLiteral("split-parcel"),
            .text = tr("Split a parcel"),
            .help = tr("By a line, or so that a part beside a side or through a corner has an area"),
            .icon = {"M4 6 H20 V18 H4 Z", "M9 3 L15 21"},
            .key = {},
            .whyNot = aParcel,
            .suits = isOneOf<objects::Parcel>,
            .make = [](Session& session) { return std::make_unique<SplitParcelTool>(session); }};
}

}  // namespace tools

}  // namespace erdwerk::app
