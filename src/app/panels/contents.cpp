#include "app/panels/contents.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QPainter>
#include <algorithm>
#include <map>

#include "app/base/theme.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

namespace {

QString kindTitle(const objects::Payload& payload) {
    static const QStringList titles{
        QObject::tr("Survey points"), QObject::tr("3D lines"),     QObject::tr("Surfaces"),
        QObject::tr("Alignments"),    QObject::tr("Profiles"),     QObject::tr("Parcels"),
        QObject::tr("Label styles"),  QObject::tr("Labels"),       QObject::tr("Sheets"),
        QObject::tr("Groups"),        QObject::tr("Point clouds"), QObject::tr("Rasters of heights"),
        QObject::tr("Backdrops")};
    return titles.value(static_cast<int>(payload.index()));
}

QIcon swatch(const QString& colour) {
    QPixmap pixmap(14, 14);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setPen(QPen(theme::ink, 1));
    painter.setBrush(QColor(colour));
    painter.drawRect(2, 2, 9, 9);
    return pixmap;
}

}  // namespace

Contents::Contents(Session& session, QWidget* parent) : QTreeWidget(parent), session_(session) {
    setObjectName(QStringLiteral("contents"));
    setAccessibleName(tr("Contents"));
    header()->hide();
    setSelectionMode(ExtendedSelection);
    setIndentation(14);
    setEditTriggers(EditKeyPressed | SelectedClicked);
    connect(&session_, &Session::documentChanged, this, &Contents::refresh);
    connect(&session_, &Session::selectionChanged, this, &Contents::showSelection);
    connect(this, &QTreeWidget::itemSelectionChanged, this, [this] {
        if (filling_) return;
        std::vector<Ref> refs;
        for (const auto* item : selectedItems())
            if (const auto id = item->data(0, Qt::UserRole).toULongLong(); id != 0)
                refs.push_back({ObjectId{id}, std::nullopt});
        session_.select(std::move(refs));
    });
    connect(this, &QTreeWidget::itemDoubleClicked, this, [this](QTreeWidgetItem* item) {
        if (const auto id = item->data(0, Qt::UserRole).toULongLong(); id != 0)
            Q_EMIT showObject(ObjectId{id});
    });
    connect(this, &QTreeWidget::itemChanged, this, &Contents::renamed);
    refresh();
}

namespace {

/// Another object that reads the same here: same name, group, and for groups the same colour and visibility.
bool looksTheSame(const document::Document& a, const document::Document& b, ObjectId id) {
    const auto x = a.find(id);
    const auto y = b.find(id);
    if (!x || !y || x->name != y->name || x->group != y->group) return false;
    const auto* g = std::get_if<objects::Group>(&x->payload);
    const auto* h = std::get_if<objects::Group>(&y->payload);
    return g == nullptr || h == nullptr || (g->colour == h->colour && g->visible == h->visible);
}

}  // namespace

void Contents::refresh() {
    // While something is dragged nothing changes here.
    const auto change = difference(shown_, session_.document());
    const bool same = change.removed.empty() && topLevelItemCount() > 0 &&
                      std::all_of(change.changed.begin(), change.changed.end(),
                                  [&](ObjectId id) { return looksTheSame(shown_, session_.document(), id); });
    shown_ = session_.document();
    if (same) return;
    filling_ = true;
    std::map<QString, bool> open;
    for (int i = 0; i < topLevelItemCount(); ++i)
        open[topLevelItem(i)->data(0, Qt::UserRole + 1).toString()] = topLevelItem(i)->isExpanded();
    clear();
    const auto& document = session_.document();
    std::map<std::size_t, QTreeWidgetItem*> kinds;
    std::map<std::pair<std::size_t, ObjectId>, QTreeWidgetItem*> groups;
    for (const auto& [id, object] : document.objects()) {
        const std::size_t kind = object->payload.index();
        if (kinds.count(kind) == 0) {
            auto* top = new QTreeWidgetItem(this);
            top->setData(0, Qt::UserRole + 1, kindTitle(object->payload));
            top->setFlags(Qt::ItemIsEnabled);
            top->setFont(0, theme::font(12, true));
            const bool small = kind != 6 && kind != 7;  // label styles and labels start closed
            top->setExpanded(open.count(kindTitle(object->payload)) != 0 ? open[kindTitle(object->payload)]
                                                                         : small);
            kinds[kind] = top;
        }
        QTreeWidgetItem* parent = kinds[kind];
        const auto* group = document.get<objects::Group>(object->group);
        if (group != nullptr) {
            auto& holder = groups[{kind, object->group}];
            if (holder == nullptr) {
                holder =
                    new QTreeWidgetItem(parent, {QString::fromStdString(document.nameOf(object->group))});
                holder->setIcon(0, swatch(QString::fromStdString(group->colour)));
                holder->setFlags(Qt::ItemIsEnabled);
                holder->setForeground(0, theme::inkQuiet);
                holder->setExpanded(true);
            }
            parent = holder;
        }
        auto* item = new QTreeWidgetItem(parent, {QString::fromStdString(object->name)});
        item->setData(0, Qt::UserRole, QVariant::fromValue<qulonglong>(id.value));
        item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable);
        if (const auto* own = std::get_if<objects::Group>(&object->payload)) {
            item->setIcon(0, swatch(QString::fromStdString(own->colour)));
            item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
            item->setCheckState(0, own->visible ? Qt::Checked : Qt::Unchecked);
            item->setToolTip(0, tr("Shown or hidden, with all that is in it"));
        }
    }
    for (const auto& [kind, top] : kinds) {
        int count = 0;
        for (const auto& [id, object] : document.objects()) count += object->payload.index() == kind ? 1 : 0;
        top->setText(0, QStringLiteral("%1  %2").arg(top->data(0, Qt::UserRole + 1).toString()).arg(count));
    }
    filling_ = false;
    showSelection();
}

void Contents::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Delete && state() != EditingState) {
        Q_EMIT deletePressed();
        return;
    }
    QTreeWidget::keyPressEvent(event);
}

void Contents::showSelection() {
    filling_ = true;
    clearSelection();
    for (QTreeWidgetItemIterator it(this); *it != nullptr; ++it) {
        const ObjectId id{(*it)->data(0, Qt::UserRole).toULongLong()};
        if (!id || !session_.isSelected(id)) continue;
        (*it)->setSelected(true);
        if (!hasFocus()) scrollToItem(*it);
    }
    filling_ = false;
}

void Contents::renamed(QTreeWidgetItem* item) {
    if (filling_) return;
    const ObjectId id{item->data(0, Qt::UserRole).toULongLong()};
    const auto& document = session_.document();
    const auto object = document.find(id);
    if (!object) return;
    // The tree is still in its own edit: what is meant is done after it.
    const auto later = [this](const QString& what, document::Edit edit) {
        QMetaObject::invokeMethod(
            this, [this, what, edit = std::move(edit)] { session_.edit(what, edit); }, Qt::QueuedConnection);
    };
    const bool shown = item->checkState(0) == Qt::Checked;
    if (const auto* group = std::get_if<objects::Group>(&object->payload);
        group != nullptr && group->visible != shown)
        return later(tr("Show or hide a group"),
                     [id, shown](const document::Document& d) -> Result<document::Edited> {
                         return document::changed<objects::Group>(
                             d, id, [shown](objects::Group& g) { g.visible = shown; });
                     });
    later(tr("Rename"),
          [id, name = item->text(0).trimmed().toStdString()](const document::Document& d)
              -> Result<document::Edited> { return operations::rename(d, id, name); });
}

}  // namespace erdwerk::app
