#include "app/panels/facts.h"

#include <QLabel>
#include <QLineEdit>
#include <algorithm>
#include <map>

#include "app/kinds/all_kinds.h"
#include "core/operations/groups.h"
#include "core/operations/show.h"

namespace erdwerk::app {

using document::Document;

Facts::Facts(Session& session, QWidget* parent) : QScrollArea(parent), session_(session) {
    setObjectName(QStringLiteral("facts"));
    setAccessibleName(tr("Facts"));
    setWidgetResizable(true);
    setFrameShape(QFrame::NoFrame);
    setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    connect(&session_, &Session::resultsChanged, this, &Facts::refresh);
    connect(&session_.selection(), &Selection::changed, this, &Facts::refresh);
    connect(&session_, &Session::textsShownChanged, this, &Facts::refresh);
    refresh();
}

void Facts::refresh() {
    // An entry that is being typed in is left alone.
    if (widget() != nullptr && widget()->isAncestorOf(focusWidget()))
        if (const auto* edit = qobject_cast<QLineEdit*>(focusWidget()); edit != nullptr && edit->isModified())
            return;
    auto* content = new QWidget;
    content->setStyleSheet(QStringLiteral("QWidget { background: #FFFFFF; }"));
    auto* layout = new QFormLayout(content);
    layout->setContentsMargins(12, 10, 12, 10);
    layout->setVerticalSpacing(5);
    layout->setHorizontalSpacing(10);
    layout->setFieldGrowthPolicy(QFormLayout::AllNonFixedFieldsGrow);
    FactsForm form(session_, *layout);
    const auto& selection = session_.selection();
    if (selection.empty()) {
        project(form);
    } else if (selection.size() > 1) {
        many(form);
    } else if (const auto object = session_.document().find(selection.front().object)) {
        kindOf(*object).facts(form, selection.front());
        dependents(form, object->id);
    }
    setWidget(content);
}

void Facts::dependents(FactsForm& form, ObjectId id) {
    const auto users = document::dependents(form.document(), id);
    if (users.empty()) return;
    form.heading(tr("Depends on it"));
    QStringList names;
    for (const ObjectId user : users) names << form.nameOf(user);
    auto* label = new QLabel(names.mid(0, 12).join(QStringLiteral(", ")) +
                             (names.size() > 12 ? tr(" and %1 more").arg(names.size() - 12) : QString()));
    label->setWordWrap(true);
    form.row(label);
}

void Facts::project(FactsForm& form) {
    const auto& settings = form.document().settings();
    form.heading(QString::fromStdString(settings.name));
    form.entry(tr("Project"), QString::fromStdString(settings.name),
               [](const Document& d, const QString& typed) -> Result<document::Edited> {
                   auto next = d.settings();
                   next.name = typed.trimmed().toStdString();
                   return d.withSettings(next);
               });
    form.fact(tr("Unit"), QString::fromUtf8(unitSymbol(settings.display.unit).data()));
    form.fact(tr("Objects"), QString::number(form.document().objects().size()));
    if (const auto& out = form.session().textsShown().leftOut; !out.empty())
        form.fact(tr("Labels without room"), tr("%1 at this scale").arg(out.size()));
    auto* hint = new QLabel(tr("Select something to see its figures and settings here."));
    hint->setWordWrap(true);
    hint->setStyleSheet(QStringLiteral("color: #5F6B74;"));
    form.row(hint);
}

void Facts::many(FactsForm& form) {
    const auto& selection = form.session().selection();
    form.heading(tr("%1 selected").arg(selection.size()));
    std::map<std::size_t, std::vector<Ref>> byKind;
    std::vector<ObjectId> objects;
    for (const Ref& r : selection) {
        const auto object = form.document().find(r.object);
        if (!object) continue;
        byKind[object->payload.index()].push_back(r);
        if (std::find(objects.begin(), objects.end(), r.object) == objects.end()) objects.push_back(r.object);
    }
    for (const auto& [kind, refs] : byKind)
        form.fact(kindOf(*form.document().find(refs.front().object)).title(), QString::number(refs.size()));
    commonSettings(form, objects);
    for (const auto& [kind, refs] : byKind)
        kindOf(*form.document().find(refs.front().object)).factsOfMany(form, refs);
}

void Facts::commonSettings(FactsForm& form, const std::vector<ObjectId>& objects) {
    form.heading(tr("All of them"));
    const auto& document = form.document();
    // Groups stay where they are; the rest can be put into one, shown and hidden together.
    std::vector<ObjectId> grouped;
    std::vector<ObjectId> seen;
    for (const ObjectId id : objects) {
        const auto object = document.find(id);
        if (document.get<objects::Group>(id) == nullptr) grouped.push_back(id);
        if (kindOf(*object).canHide()) seen.push_back(id);
    }
    if (!seen.empty())
        form.checkOfMany(tr("Shown"),
                         commonOf(seen, [&](ObjectId id) { return document.shown().hidden.count(id) == 0; }),
                         [seen](bool on) { return operations::setShown(seen, on); });
    if (!grouped.empty()) {
        const auto all = document.all<objects::Group>();
        QStringList names{tr("none")};
        for (const ObjectId id : all) names << form.nameOf(id);
        const auto group = commonOf(grouped, [&](ObjectId id) { return document.find(id)->group; });
        std::optional<int> at;
        if (group)
            at = *group ? static_cast<int>(std::find(all.begin(), all.end(), *group) - all.begin()) + 1 : 0;
        form.choiceOfMany(tr("Group"), names, at, [grouped, all](int i) {
            return operations::putInGroup(grouped,
                                          i == 0 ? ObjectId{} : all[static_cast<std::size_t>(i - 1)]);
        });
    }
}

}  // namespace erdwerk::app

#include "moc_facts.cpp"
