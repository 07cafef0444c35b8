// Labels many things at once: what is clicked, selected or named, or all in a window.

#include "app/base/theme.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "core/operations/labels.h"

namespace erdwerk::app {

namespace {

class LabelManyTool final : public Tool {
public:
    explicit LabelManyTool(Session& session) : Tool(session, tr("Label many")) {
        for (const Ref& ref : session_.selection())
            if (std::find(targets_.begin(), targets_.end(), ref.object) == targets_.end())
                targets_.push_back(ref.object);
    }
    [[nodiscard]] QString prompt() const override {
        if (corner_) return tr("Click the other corner of the window");
        const std::size_t count = operations::countToLabel(session_.document(), targets_, what_);
        if (count > 0)
            return tr("Enter labels %1 parts; or click something else, or a corner of a window").arg(count);
        if (!targets_.empty())
            return tr("All of it has labels; click something else, or a corner of a window");
        return tr("Click a line, a parcel, a set of points or an alignment, or a corner of a window");
    }
    [[nodiscard]] QString entryHint() const override {
        return tr("a name  ·  sides · points · controls · areas");
    }
    [[nodiscard]] QStringList completions() const override {
        QStringList out{tr("sides"), tr("points"), tr("controls"), tr("areas")};
        for (const ObjectId id : session_.document().all<objects::Group>())
            out << QString::fromStdString(session_.document().nameOf(id));
        return out;
    }
    [[nodiscard]] std::vector<Chip> chips() const override {
        QStringList what;
        if (what_.sides) what << tr("sides");
        if (what_.points) what << tr("points");
        if (what_.controls) what << tr("controls");
        if (what_.areas) what << tr("areas");
        QStringList names;
        for (const ObjectId id : targets_) names << QString::fromStdString(session_.document().nameOf(id));
        if (names.size() > 2) names = {tr("%1 things").arg(names.size())};
        return {{tr("Of"), names.join(QStringLiteral(", "))},
                {tr("Labels"), what.join(QStringLiteral(", "))}};
    }
    void repick(std::size_t chip) override {
        if (chip == 0) targets_.clear();
        if (chip == 1) what_ = {};
        Q_EMIT changed();
    }
    [[nodiscard]] bool accepts(const Snap& snap) const override { return fits(snap.ref.object); }
    void hoverAt(const Snap& snap) override {
        hover_ = snap.place;
        Q_EMIT changed();
    }
    void clickAt(const Snap& snap) override {
        if (corner_) {
            geometry::Box box;
            box.add(*corner_);
            box.add(snap.place);
            corner_.reset();
            return label(everything(), box);
        }
        if (!fits(snap.ref.object)) {
            corner_ = snap.place;
            Q_EMIT changed();
            return;
        }
        targets_ = {snap.ref.object};
        label(targets_, {});
    }
    bool enter(const QString& text) override {
        const QString typed = text.trimmed();
        bool* const which = typed == tr("sides")      ? &what_.sides
                            : typed == tr("points")   ? &what_.points
                            : typed == tr("controls") ? &what_.controls
                            : typed == tr("areas")    ? &what_.areas
                                                      : nullptr;
        if (which != nullptr) {
            *which = !*which;
            Q_EMIT changed();
            return true;
        }
        for (const auto& [id, object] : session_.document().objects())
            if (QString::fromStdString(object->name) == typed && fits(id)) {
                targets_ = {id};
                Q_EMIT changed();
                return true;
            }
        Q_EMIT failed(tr("There is no line, parcel, set, alignment or group named %1").arg(typed));
        return false;
    }
    bool escape() override {
        if (!corner_) return false;
        corner_.reset();
        Q_EMIT changed();
        return true;
    }
    bool stepBack() override { return escape(); }
    void complete() override {
        if (targets_.empty())
            Q_EMIT failed(tr("Nothing is picked. %1.").arg(prompt()));
        else
            label(targets_, {});
    }
    void paintGhost(QPainter& painter, const ViewTransform& view) const override {
        if (!corner_ || !hover_) return;
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme::clay, 1.4, Qt::DashLine));
        painter.drawRect(QRectF(view.toPicture(*corner_), view.toPicture(*hover_)).normalized());
    }

private:
    [[nodiscard]] bool fits(ObjectId id) const {
        const auto& d = session_.document();
        return d.get<objects::Line>(id) != nullptr || d.get<objects::Parcel>(id) != nullptr ||
               d.get<objects::Points>(id) != nullptr || d.get<objects::Alignment>(id) != nullptr ||
               d.get<objects::Group>(id) != nullptr;
    }
    [[nodiscard]] std::vector<ObjectId> everything() const {
        std::vector<ObjectId> out;
        const auto& d = session_.document();
        for (const auto& [id, object] : d.objects())
            if (fits(id) && d.get<objects::Group>(id) == nullptr && !d.hidden(*object)) out.push_back(id);
        return out;
    }
    void label(const std::vector<ObjectId>& targets, std::optional<geometry::Box> within) {
        auto what = what_;
        what.within = within;
        if (const auto done = session_.edit(tr("Label many"), operations::labelMany(targets, what)))
            Q_EMIT made(done.made);
        Q_EMIT changed();
    }

    std::vector<ObjectId> targets_;
    operations::LabelMany what_;
    std::optional<geometry::Vec2> corner_;
    std::optional<geometry::Vec2> hover_;
};

}  // namespace

namespace tools {

ToolDeclaration labelMany() {
    return {
        .id = QStringLiteral("label-many"),
        .text = tr("Label many"),
        .help = tr("Labels all of a line, a parcel, a set, a group or a window that has no label yet"),
        .icon = {"M4 20 H20 M4 13 H20", "M6 9 L8.5 3 L11 9 M7 7 H10 M14 6 H19"},
        .key = QStringLiteral("M"),
        .whyNot = anOpenProject,
        .suits = isOneOf<objects::Line, objects::Points, objects::Parcel, objects::Alignment, objects::Group>,
        .make = [](Session& s) { return std::make_unique<LabelManyTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app
