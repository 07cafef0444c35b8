#include "app/panels/facts.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/base/theme.h"
#include "app/plan/tool.h"
#include "core/base/notation.h"
#include "core/operations/edit.h"
#include "core/operations/ground.h"

namespace erdwerk::app {

using document::Document;

namespace {
QString text(const std::string& s) {
    return QString::fromStdString(s);
}
}  // namespace

Facts::Facts(Session& session, QWidget* parent) : QScrollArea(parent), session_(session) {
    setObjectName(QStringLiteral("facts"));
    setAccessibleName(tr("Facts"));
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(&session_, &Session::resultsChanged, this, &Facts::refresh);
    connect(&session_, &Session::selectionChanged, this, &Facts::refresh);
    refresh();
}

void Facts::refresh() {
    // An entry that is being typed in is left alone.
    if (widget() != nullptr && widget()->isAncestorOf(focusWidget()))
        if (const auto* edit = qobject_cast<QLineEdit*>(focusWidget()); edit != nullptr && edit->isModified())
            return;
    auto* content = new QWidget;
    content->setStyleSheet(QStringLiteral("QWidget { background: #FFFFFF; }"));
    form_ = new QFormLayout(content);
    form_->setContentsMargins(12, 10, 12, 10);
    form_->setVerticalSpacing(5);
    form_->setHorizontalSpacing(10);
    form_->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
    const auto& selection = session_.selection();
    if (selection.empty()) {
        project();
    } else if (selection.size() > 1) {
        many();
    } else if (const auto object = session_.document().find(selection.front().object)) {
        const Ref& ref = selection.front();
        const ObjectId id = ref.object;
        const auto& payload = object->payload;
        if (const auto* set = std::get_if<objects::Points>(&payload)) {
            if (ref.part && *ref.part < set->set.size())
                point(id, *ref.part);
            else
                points(id);
        } else if (std::holds_alternative<objects::Line>(payload)) {
            line(id, ref.part);
        } else if (std::holds_alternative<objects::Surface>(payload)) {
            surface(id);
        } else if (std::holds_alternative<objects::Alignment>(payload)) {
            alignment(id);
        } else if (std::holds_alternative<objects::Profile>(payload)) {
            profile(id);
        } else if (std::holds_alternative<objects::Parcel>(payload)) {
            parcel(id);
        } else if (std::holds_alternative<objects::Label>(payload)) {
            label(id);
        } else if (std::holds_alternative<objects::Sheet>(payload)) {
            sheet(id);
        } else if (std::holds_alternative<objects::Group>(payload)) {
            group(id);
        } else if (std::holds_alternative<objects::Cloud>(payload)) {
            cloud(id);
        } else if (std::holds_alternative<objects::HeightRaster>(payload)) {
            raster(id);
        } else if (std::holds_alternative<objects::Backdrop>(payload)) {
            backdrop(id);
        } else {
            heading(text(object->name));
        }
        common(id);
    }
    setWidget(content);
}

// ---- rows

void Facts::heading(const QString& name) {
    auto* label = new QLabel(name);
    label->setFont(theme::font(form_->rowCount() == 0 ? 15 : 12, true));
    label->setWordWrap(true);
    if (form_->rowCount() > 0) label->setStyleSheet(QStringLiteral("color: #5F6B74; padding-top: 8px;"));
    form_->addRow(label);
}

void Facts::fact(const QString& name, const QString& value) {
    auto* label = new QLabel(value);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    label->setWordWrap(true);
    label->setAccessibleName(name);
    form_->addRow(name, label);
}

void Facts::later(const QString& what, document::Edit edit) {
    QMetaObject::invokeMethod(
        this, [this, what, edit = std::move(edit)] { session_.edit(what, edit); }, Qt::QueuedConnection);
}

void Facts::entry(const QString& name, const QString& value,
                  std::function<Result<Document>(const Document&, const QString&)> edit) {
    auto* line = new QLineEdit(value);
    line->setAccessibleName(name);
    line->setObjectName(QStringLiteral("fact:") + name);
    line->setCursorPosition(0);
    connect(line, &QLineEdit::editingFinished, this, [this, line, name, value, edit = std::move(edit)] {
        if (!line->isModified() || line->text() == value) return;
        line->setModified(false);
        const QString typed = line->text();
        // What cannot be read is said at once, and the entry shows again what holds.
        if (const auto tried = edit(session_.document(), typed); !tried) {
            Q_EMIT session_.message(text(tried.error().text), true);
            line->setText(value);
            return;
        }
        later(tr("Set %1").arg(name.toLower()), [edit, typed](const Document& d) -> Result<document::Edited> {
            auto next = edit(d, typed);
            if (!next) return tl::unexpected(next.error());
            return document::Edited(std::move(*next));
        });
    });
    form_->addRow(name, line);
}

void Facts::typedEntry(const QString& name, const QString& value,
                       std::function<document::Edit(std::string)> edit) {
    entry(name, value, [edit = std::move(edit)](const Document& d, const QString& typed) -> Result<Document> {
        auto done = edit(typed.toStdString())(d);
        if (!done) return tl::unexpected(done.error());
        return std::move(done->document);
    });
}

void Facts::check(const QString& name, bool value, std::function<Document(const Document&, bool)> edit) {
    auto* box = new QCheckBox(name);
    box->setChecked(value);
    box->setObjectName(QStringLiteral("fact:") + name);
    connect(box, &QCheckBox::toggled, this, [this, name, edit = std::move(edit)](bool on) {
        later(tr("Set %1").arg(name.toLower()),
              [edit, on](const Document& d) -> Result<document::Edited> { return edit(d, on); });
    });
    form_->addRow(box);
}

void Facts::choice(const QString& name, const QStringList& texts, int current,
                   std::function<Document(const Document&, int)> edit) {
    auto* box = new QComboBox;
    box->addItems(texts);
    box->setCurrentIndex(current);
    box->setAccessibleName(name);
    box->setObjectName(QStringLiteral("fact:") + name);
    box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    box->setMinimumContentsLength(6);
    connect(box, &QComboBox::activated, this, [this, name, edit = std::move(edit)](int i) {
        later(tr("Set %1").arg(name.toLower()),
              [edit, i](const Document& d) -> Result<document::Edited> { return edit(d, i); });
    });
    form_->addRow(name, box);
}

void Facts::number(const QString& name, double value, double least,
                   std::function<Document(const Document&, double)> edit) {
    entry(name, text(formatExact(value)),
          [least, name, edit = std::move(edit)](const Document& d, const QString& typed) -> Result<Document> {
              const auto v = parseNumber(typed.toStdString());
              if (!v) return badInput("'" + typed.toStdString() + "' is not a number");
              if (*v < least) return badInput(name.toStdString() + " must be at least " + formatExact(least));
              return edit(d, *v);
          });
}

// ---- what is selected

void Facts::common(ObjectId id) {
    const auto& document = session_.document();
    const auto users = dependents(document, id);
    if (users.empty()) return;
    heading(tr("Depends on it"));
    QStringList names;
    for (const ObjectId user : users) names << text(document.nameOf(user));
    auto* label = new QLabel(names.mid(0, 12).join(QStringLiteral(", ")) +
                             (names.size() > 12 ? tr(" and %1 more").arg(names.size() - 12) : QString()));
    label->setWordWrap(true);
    form_->addRow(label);
}

void Facts::project() {
    const auto& document = session_.document();
    heading(text(document.settings().name));
    entry(tr("Project"), text(document.settings().name),
          [](const Document& d, const QString& typed) -> Result<Document> {
              auto settings = d.settings();
              settings.name = typed.trimmed().toStdString();
              return d.withSettings(settings);
          });
    fact(tr("Unit"), QString::fromUtf8(unitSymbol(document.settings().display.unit).data()));
    fact(tr("Objects"), QString::number(document.objects().size()));
    auto* hint = new QLabel(tr("Select something to see its figures and settings here."));
    hint->setWordWrap(true);
    hint->setStyleSheet(QStringLiteral("color: #5F6B74;"));
    form_->addRow(hint);
}

void Facts::many() {
    heading(tr("%1 selected").arg(session_.selection().size()));
    std::map<QString, int> kinds;
    for (const Ref& r : session_.selection())
        if (const auto object = session_.document().find(r.object))
            ++kinds[QString::fromUtf8(kindName(object->payload).data())];
    for (const auto& [kind, count] : kinds) fact(kind, QString::number(count));
}

void Facts::point(ObjectId set, std::size_t index) {
    const auto& display = session_.document().settings().display;
    const objects::PointRef ref{set, index};
    const auto p = session_.document().get<objects::Points>(set)->set[index];
    heading(tr("Point %1").arg(text(p.number)));
    const auto change = [ref](const Document& d, const std::function<void(survey::SurveyPoint&)>& edit) {
        const auto* points = d.get<objects::Points>(ref.set);
        if (points == nullptr || ref.index >= points->set.size()) return d;
        auto next = points->set[ref.index];
        edit(next);
        return operations::setPoint(d, ref, next);
    };
    entry(tr("Number"), text(p.number), [change](const Document& d, const QString& t) -> Result<Document> {
        return change(d, [&](auto& q) { q.number = t.trimmed().toStdString(); });
    });
    number(tr("Easting"), p.plan.x, -1e9,
           [change](const Document& d, double v) { return change(d, [&](auto& q) { q.plan.x = v; }); });
    number(tr("Northing"), p.plan.y, -1e9,
           [change](const Document& d, double v) { return change(d, [&](auto& q) { q.plan.y = v; }); });
    typedEntry(tr("Height"), p.height ? text(formatExact(*p.height)) : QString(),
               [this, ref](std::string typed) {
                   return operations::setTypedHeight(session_.results(), ref, std::move(typed));
               });
    entry(tr("Code"), text(p.code), [change](const Document& d, const QString& t) -> Result<Document> {
        return change(d, [&](auto& q) { q.code = t.trimmed().toStdString(); });
    });
    entry(tr("Note"), text(p.note), [change](const Document& d, const QString& t) -> Result<Document> {
        return change(d, [&](auto& q) { q.note = t.trimmed().toStdString(); });
    });
    if (const auto h = session_.derived().topHeight(p.plan))
        fact(tr("Surface here"), text(formatHeight(h, display)));
}

void Facts::points(ObjectId id) {
    const auto& set = session_.document().get<objects::Points>(id)->set;
    heading(text(session_.document().nameOf(id)));
    fact(tr("Points"), QString::number(set.size()));
    std::size_t without = 0;
    for (std::size_t i = 0; i < set.size(); ++i) without += set[i].height ? 0 : 1;
    fact(tr("Without height"), QString::number(without));
    objectChoice<objects::Group>(
        tr("Group"), session_.document().find(id)->group,
        [id](const Document& d, ObjectId g) { return operations::setGroup(d, id, g); }, tr("none"));
}

void Facts::line(ObjectId id, std::optional<std::size_t> vertex) {
    const auto& document = session_.document();
    const auto& display = document.settings().display;
    const auto* payload = document.get<objects::Line>(id);
    heading(text(document.nameOf(id)));
    const auto* r = derive::Derived::in(session_.derived().lines, id);
    if (r != nullptr && vertex && *vertex < r->vertices.size() && *vertex < payload->line.vertices.size()) {
        const auto& v = r->vertices[*vertex];
        const std::size_t i = *vertex;
        heading(payload->line.vertices[i].isCorner ? tr("Corner %1").arg(i + 1) : tr("Grade point"));
        fact(tr("Place"), text(formatPosition(v.place.x, v.place.y, display)));
        fact(tr("Station"), text(formatStation(v.distance, display)));
        fact(tr("Height"), v.height ? text(formatHeight(v.height, display)) : text(v.problem));
        typedEntry(tr("Rule"),
                   QString::fromStdString(operations::ruleText(document, payload->line.vertices[i].rule)),
                   [id, i](std::string typed) { return operations::setTypedRule(id, i, std::move(typed)); });
        heading(tr("Line"));
    }
    if (r != nullptr) {
        fact(tr("Length"), text(formatLength(r->length, display)));
        if (r->closed) fact(tr("Area"), text(formatArea(std::abs(geometry::signedArea(r->path)), display)));
        std::optional<double> low;
        std::optional<double> high;
        for (const auto& v : r->vertices) {
            if (!v.height) continue;
            low = std::min(low.value_or(*v.height), *v.height);
            high = std::max(high.value_or(*v.height), *v.height);
        }
        fact(tr("Heights"),
             low ? text(formatHeight(low, display) + " to " + formatHeight(high, display)) : tr("none"));
    }
    fact(tr("Corners"), QString::number(cornersOf(payload->line).size()));
    fact(tr("Grade points"),
         QString::number(payload->line.vertices.size() - cornersOf(payload->line).size()));
    choice(tr("Drawn as"), {tr("plain line"), tr("crest"), tr("toe")}, static_cast<int>(payload->style),
           [id](const Document& d, int i) {
               return document::changed<objects::Line>(
                   d, id, [i](objects::Line& l) { l.style = static_cast<objects::LineStyle>(i); });
           });
    objectChoice<objects::Group>(
        tr("Group"), document.find(id)->group,
        [id](const Document& d, ObjectId g) { return operations::setGroup(d, id, g); }, tr("none"));
}

void Facts::group(ObjectId id) {
    const auto g = *session_.document().get<objects::Group>(id);
    heading(text(session_.document().nameOf(id)));
    check(tr("Shown"), g.visible, [id](const Document& d, bool on) {
        return document::changed<objects::Group>(d, id, [on](objects::Group& x) { x.visible = on; });
    });
    entry(tr("Colour"), text(g.colour), [id](const Document& d, const QString& t) -> Result<Document> {
        if (!QColor::isValidColor(t.trimmed()))
            return badInput("'" + t.toStdString() + "' is not a colour; write it like #3F5C73");
        return document::changed<objects::Group>(
            d, id, [&](objects::Group& x) { x.colour = QColor(t.trimmed()).name().toStdString(); });
    });
}

}  // namespace erdwerk::app
