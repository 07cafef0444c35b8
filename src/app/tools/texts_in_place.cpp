// The style of a label, changed on the label itself: its texts are dragged to where they are to stand.

#include <algorithm>

#include "app/base/theme.h"
#include "app/kinds/label_layout.h"
#include "app/plan/tool.h"
#include "app/tools/all_tools.h"
#include "core/annotate/label.h"
#include "core/objects/label.h"
#include "core/operations/labels.h"

namespace erdwerk::app {

class TextsInPlaceTool : public Tool {
    Q_OBJECT
public:
    explicit TextsInPlaceTool(Session& session);
    [[nodiscard]] QString prompt() const override;
    [[nodiscard]] QString entryHint() const override;
    [[nodiscard]] QStringList completions() const override;
    [[nodiscard]] std::vector<Chip> chips() const override;
    void repick(std::size_t chip) override;
    [[nodiscard]] bool accepts(const Snap& snap) const override;
    [[nodiscard]] std::vector<Snap> ownPlaces() const override;
    void pickUp(const Snap& snap) override;
    void hoverAt(const Snap& snap) override;
    void clickAt(const Snap& snap) override;
    bool enter(const QString& text) override;
    bool escape() override;
    void leave() override;
    void paintGhost(QPainter& painter, const ViewTransform& view) const override;

private:
    [[nodiscard]] const objects::Label* label() const;
    [[nodiscard]] const annotate::LabelText* text() const;
    /// The change that puts the text in hand there.
    [[nodiscard]] document::Edit moved(geometry::Vec2 place) const;
    [[nodiscard]] document::Edit changed(std::function<void(annotate::LabelStyle&)> change) const;
    void put(geometry::Vec2 place);

    ObjectId label_;
    bool only_ = false;                  ///< this label alone gets a style of its own
    std::optional<std::size_t> inHand_;  ///< line of text that is dragged
    mutable ViewTransform view_;         ///< of the last picture: millimetres are of its paper
};

using annotate::LabelStyle;
using annotate::LabelText;
using geometry::Vec2;

TextsInPlaceTool::TextsInPlaceTool(Session& session) : Tool(session, tr("Texts in place")) {
    if (const auto selected = session_.selected<objects::Label>()) label_ = *selected;
    for (const Ref& ref : session_.selection()) {
        if (label_) break;
        if (const auto labels = operations::labelsOf(session_.document(), ref.object); !labels.empty())
            label_ = labels.front();
    }
    connect(&session_, &Session::resultsChanged, this, &Tool::changed);
}

const objects::Label* TextsInPlaceTool::label() const {
    return session_.document().get<objects::Label>(label_);
}

const LabelText* TextsInPlaceTool::text() const {
    const auto* found = derive::Derived::in(session_.derived().labels, label_);
    return found != nullptr && label() != nullptr && !found->lines.empty() ? found : nullptr;
}

QString TextsInPlaceTool::prompt() const {
    if (label() == nullptr) return tr("Click a label, or a thing that has one");
    if (inHand_) return tr("Drop the text above, in line, below, along, closer or farther");
    return tr("Drag a text to where it is to stand, or type its height");
}

QString TextsInPlaceTool::entryHint() const {
    return tr("2.5  ·  only  ·  all  ·  as styled");
}

QStringList TextsInPlaceTool::completions() const {
    return {tr("only"), tr("all"), tr("as styled")};
}

std::vector<Chip> TextsInPlaceTool::chips() const {
    std::vector<Chip> out{{tr("Label"), label() != nullptr
                                            ? QString::fromStdString(session_.document().nameOf(label_))
                                            : QString()}};
    if (label() == nullptr) return out;
    const bool own = only_ || label()->own;
    out.push_back(
        {tr("Changes"),
         own ? tr("this label only")
             : tr("all of %1").arg(QString::fromStdString(session_.document().nameOf(label()->style)))});
    return out;
}

void TextsInPlaceTool::repick(std::size_t chip) {
    if (chip == 0) label_ = {};
    if (chip == 1) only_ = !only_;
    inHand_.reset();
    Q_EMIT Tool::changed();
}

bool TextsInPlaceTool::accepts(const Snap& snap) const {
    return session_.document().get<objects::Label>(snap.ref.object) != nullptr ||
           !operations::labelsOf(session_.document(), snap.ref.object).empty();
}

std::vector<Snap> TextsInPlaceTool::ownPlaces() const {
    std::vector<Snap> out;
    if (text() == nullptr) return out;
    const auto& shown = session_.textsShown().shown;
    const auto of = shown.find(label_);
    if (of == shown.end() || of->second.tag) return out;
    for (std::size_t i = 0; i < of->second.boxes.size() && i < text()->lines.size(); ++i) {
        Snap snap{SnapKind::Object, of->second.boxes[i].centre, std::nullopt, {ObjectId{}, i}};
        snap.name = tr("text %1").arg(QString::fromStdString(text()->lines[i].text));
        out.push_back(std::move(snap));
    }
    return out;
}

void TextsInPlaceTool::pickUp(const Snap& snap) {
    inHand_ = snap.ref.part;
    Q_EMIT Tool::changed();
}

document::Edit TextsInPlaceTool::changed(std::function<void(LabelStyle&)> change) const {
    if (only_ || label()->own) return operations::changeLabelByHand(label_, std::move(change));
    return operations::changeLabelStyle(label()->style, std::move(change));
}

document::Edit TextsInPlaceTool::moved(Vec2 place) const {
    const LabelText& said = *text();
    const PlanTexts texts(view_, 1, std::nullopt);
    const auto layout = layoutOf(said, texts, view_, 1);
    const QPointF at = view_.toPicture(place);
    const std::size_t i = std::min(*inHand_, said.lines.size() - 1);
    const auto to = annotate::draggedTo(layout.line, layout.at, layout.radius, layout.texts[i],
                                        {at.x(), at.y()}, 1 / millimetresPerPixel);
    return changed([to, line = said.lines[i].styleLine](LabelStyle& style) {
        if (line >= style.lines.size()) return;
        style.lines[line].stand = to.stand;
        style.lines[line].along = to.along;
        if (to.stand != annotate::Stand::InLine) style.lines[line].gap = to.gap;
    });
}

void TextsInPlaceTool::hoverAt(const Snap& snap) {
    if (inHand_ && text() != nullptr) session_.preview(moved(snap.place));
}

void TextsInPlaceTool::put(Vec2 place) {
    const auto edit = moved(place);
    inHand_.reset();
    session_.edit(only_ ? tr("Change a label by hand") : tr("Change a label style"), edit);
    Q_EMIT Tool::changed();
}

void TextsInPlaceTool::clickAt(const Snap& snap) {
    if (inHand_ && text() != nullptr) return put(snap.place);
    if (!snap.ref.object && snap.ref.part) return pickUp(snap);
    if (session_.document().get<objects::Label>(snap.ref.object) != nullptr) {
        label_ = snap.ref.object;
    } else {
        // Of the side or point that was clicked, else the first of the thing.
        const auto labels = operations::labelsOf(session_.document(), snap.ref.object);
        if (labels.empty()) {
            Q_EMIT failed(tr("Nothing that has a label is here; click a label, or label something first"));
            return;
        }
        label_ = labels.front();
        for (const ObjectId id : labels) {
            const auto& l = *session_.document().get<objects::Label>(id);
            if (l.part == snap.ref.part.value_or(snap.segment)) label_ = id;
        }
    }
    session_.selection().set({{label_, std::nullopt}});
    Q_EMIT Tool::changed();
}

bool TextsInPlaceTool::enter(const QString& typed) {
    if (label() == nullptr) {
        Q_EMIT failed(tr("Click a label first"));
        return false;
    }
    const QString word = typed.trimmed().toLower();
    if (word == tr("only") || word == tr("all")) {
        only_ = word == tr("only");
        Q_EMIT Tool::changed();
        return true;
    }
    if (word == tr("as styled"))
        return session_.edit(tr("A label as its style says"), operations::labelAsStyled(label_)).done;
    const auto height = typedFigure(typed);
    if (!height) {
        Q_EMIT failed(tr("Type a height in millimetres, only, all, or as styled"));
        return false;
    }
    return session_
        .edit(tr("Text height %1 mm").arg(*height), changed([height](LabelStyle& s) { s.height = *height; }))
        .done;
}

bool TextsInPlaceTool::escape() {
    if (!inHand_) return false;
    inHand_.reset();
    session_.endPreview();
    Q_EMIT Tool::changed();
    return true;
}

void TextsInPlaceTool::leave() {
    if (inHand_) session_.endPreview();
    inHand_.reset();
}

void TextsInPlaceTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    view_ = view;
    const auto& shown = session_.textsShown().shown;
    const auto of = shown.find(label_);
    if (of == shown.end()) return;
    painter.setBrush(Qt::NoBrush);
    for (std::size_t i = 0; i < of->second.boxes.size(); ++i) {
        painter.setPen(QPen(theme::clay, inHand_ == i ? 2.2 : 1.2));
        QPolygonF outline;
        for (const Vec2 corner : annotate::cornersOf(of->second.boxes[i])) outline << view.toPicture(corner);
        painter.drawPolygon(outline);
    }
}

namespace tools {

ToolDeclaration textsInPlace() {
    return {
        .id = QStringLiteral("texts-in-place"),
        .text = tr("Texts in place"),
        .help = tr("Drags the texts of a label to where its style is to put them; all of the style follow"),
        .icon = {"M4 19 L20 13", "M8 9 L10.5 3 L13 9 M9 7 H12 M17 4 V10 M14.5 7 H19.5"},
        .key = QStringLiteral("T"),
        .whyNot =
            [](const Session& s) {
                return s.document().all<objects::Label>().empty() ? tr("label something first") : QString();
            },
        .suits = isOneOf<objects::Label>,
        .make = [](Session& s) { return std::make_unique<TextsInPlaceTool>(s); }};
}

}  // namespace tools
}  // namespace erdwerk::app

#include "texts_in_place.moc"
