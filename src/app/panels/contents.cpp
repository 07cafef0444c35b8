#include "app/panels/contents.h"

#include <QHeaderView>
#include <QKeyEvent>
#include <QPainter>
#include <algorithm>
#include <map>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

namespace {

QIcon swatch(const QColor& colour) {
    QPixmap pixmap(14, 14);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setPen(QPen(theme::ink, 1));
    painter.setBrush(colour);
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

/// Another object that reads the same here.
bool looksTheSame(const document::Document& a, const document::Document& b, ObjectId id) {
    const auto x = a.find(id);
    const auto y = b.find(id);
    return x && y && x->name == y->name && x->group == y->group && kindOf(*x).look(*x) == kindOf(*y).look(*y);
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
    std::map<std::size_t, QTreeWidgetItem*> headings;
    std::map<QTreeWidgetItem*, int> counts;
    for (const auto& [id, object] : document.objects()) {
        auto& top = headings[object->payload.index()];
        if (top == nullptr) {
            const ObjectKind& kind = kindOf(*object);
            top = addHeading(kind.title());
            const auto was = open.find(kind.title());
            top->setExpanded(was != open.end() ? was->second : !kind.startsFolded());
        }
        addItem(holderOf(top, object->group), *object);
        ++counts[top];
    }
    groups_.clear();
    for (const auto& [top, count] : counts)
        top->setText(0, QStringLiteral("%1  %2").arg(top->data(0, Qt::UserRole + 1).toString()).arg(count));
    filling_ = false;
    showSelection();
}

QTreeWidgetItem* Contents::addHeading(const QString& title) {
    auto* top = new QTreeWidgetItem(this);
    top->setData(0, Qt::UserRole + 1, title);
    top->setFlags(Qt::ItemIsEnabled);
    top->setFont(0, theme::font(12, true));
    return top;
}

QTreeWidgetItem* Contents::holderOf(QTreeWidgetItem* heading, ObjectId group) {
    const auto object = session_.document().find(group);
    if (!object) return heading;
    auto& holder = groups_[{heading, group}];
    if (holder != nullptr) return holder;
    holder = new QTreeWidgetItem(heading, {QString::fromStdString(object->name)});
    if (const auto look = kindOf(*object).look(*object); look.swatch)
        holder->setIcon(0, swatch(*look.swatch));
    holder->setFlags(Qt::ItemIsEnabled);
    holder->setForeground(0, theme::inkQuiet);
    holder->setExpanded(true);
    return holder;
}

void Contents::addItem(QTreeWidgetItem* parent, const objects::Object& object) {
    auto* item = new QTreeWidgetItem(parent, {QString::fromStdString(object.name)});
    item->setData(0, Qt::UserRole, QVariant::fromValue<qulonglong>(object.id.value));
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable);
    const auto look = kindOf(object).look(object);
    if (look.swatch) item->setIcon(0, swatch(*look.swatch));
    if (!look.shown) return;
    item->setFlags(item->flags() | Qt::ItemIsUserCheckable);
    item->setCheckState(0, *look.shown ? Qt::Checked : Qt::Unchecked);
    item->setToolTip(0, tr("Shown or hidden, with all that is in it"));
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
    const ObjectKind& kind = kindOf(*object);
    if (const auto look = kind.look(*object); look.shown && *look.shown != shown)
        if (auto edit = kind.setShown(id, shown))
            return later(tr("Show or hide %1").arg(QString::fromStdString(object->name)), std::move(*edit));
    later(tr("Rename"),
          [id, name = item->text(0).trimmed().toStdString()](const document::Document& d)
              -> Result<document::Edited> { return operations::rename(d, id, name); });
}

}  // namespace erdwerk::app
