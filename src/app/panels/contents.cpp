#include "app/panels/contents.h"

#include <QDropEvent>
#include <QHeaderView>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QVBoxLayout>
#include <algorithm>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/groups.h"
#include "core/operations/objects.h"
#include "core/operations/show.h"

namespace erdwerk::app {

namespace {

enum Column { Name, Eye };
enum Role { Id = Qt::UserRole, Title, GroupId };

QIcon swatch(const QColor& colour) {
    QPixmap pixmap(14, 14);
    pixmap.fill(Qt::transparent);
    QPainter painter(&pixmap);
    painter.setPen(QPen(theme::ink, 1));
    painter.setBrush(colour);
    painter.drawRect(2, 2, 9, 9);
    return pixmap;
}

ObjectId idOf(const QTreeWidgetItem* item) {
    return {item->data(Name, Id).toULongLong()};
}

/// Drops are edits of the project; the tree follows the project.
class Tree : public QTreeWidget {
public:
    explicit Tree(Contents& contents) : contents_(contents) {}

protected:
    void dropEvent(QDropEvent* event) override {
        contents_.drop(selectedItems(), itemAt(event->position().toPoint()));
        event->setDropAction(Qt::IgnoreAction);
        event->accept();
    }

private:
    Contents& contents_;
};

/// Another object that reads the same here.
bool looksTheSame(const document::Document& a, const document::Document& b, ObjectId id) {
    const auto x = a.find(id);
    const auto y = b.find(id);
    return x && y && x->name == y->name && x->group == y->group && kindOf(*x).look(*x) == kindOf(*y).look(*y);
}

}  // namespace

Contents::Contents(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("contents"));
    auto* column = new QVBoxLayout(this);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    filter_ = new QLineEdit;
    filter_->setObjectName(QStringLiteral("contentsFilter"));
    filter_->setAccessibleName(tr("Filter contents"));
    filter_->setPlaceholderText(tr("Contents: type to filter"));
    filter_->setClearButtonEnabled(true);
    filter_->installEventFilter(this);
    tree_ = new Tree(*this);
    tree_->setObjectName(QStringLiteral("contentsTree"));
    tree_->setAccessibleName(tr("Contents"));
    column->addWidget(filter_);
    column->addWidget(tree_, 1);
    tree_->setColumnCount(2);
    tree_->header()->hide();
    tree_->header()->setStretchLastSection(false);
    tree_->header()->setMinimumSectionSize(20);
    tree_->header()->setSectionResizeMode(Name, QHeaderView::Stretch);
    tree_->header()->setSectionResizeMode(Eye, QHeaderView::Fixed);
    tree_->setColumnWidth(Eye, 26);
    tree_->setUniformRowHeights(true);
    tree_->setSelectionMode(QAbstractItemView::ExtendedSelection);
    tree_->setDragDropMode(QAbstractItemView::InternalMove);
    tree_->setIndentation(14);
    tree_->setEditTriggers(QAbstractItemView::EditKeyPressed | QAbstractItemView::SelectedClicked);
    connectTree();
    connect(&session_, &Session::documentChanged, this, &Contents::refresh);
    connect(&session_.selection(), &Selection::changed, this, &Contents::showSelection);
    refresh();
}

void Contents::connectTree() {
    tree_->installEventFilter(this);
    tree_->setContextMenuPolicy(Qt::CustomContextMenu);
    connect(tree_, &QWidget::customContextMenuRequested, this,
            [this](QPoint at) { Q_EMIT menuWanted(tree_->viewport()->mapToGlobal(at)); });
    connect(tree_, &QTreeWidget::itemSelectionChanged, this, [this] {
        if (filling_) return;
        std::vector<Ref> refs;
        for (const auto* item : tree_->selectedItems())
            if (const ObjectId id = idOf(item)) refs.push_back({id, std::nullopt});
        session_.selection().set(std::move(refs));
    });
    connect(tree_, &QTreeWidget::itemDoubleClicked, this, [this](QTreeWidgetItem* item, int column) {
        if (const ObjectId id = idOf(item); id && column == Name) Q_EMIT showObject(id);
    });
    connect(tree_, &QTreeWidget::itemClicked, this, [this](QTreeWidgetItem* item, int column) {
        if (column == Eye) pressEye(item);
    });
    connect(tree_, &QTreeWidget::itemChanged, this, &Contents::renamed);
    connect(filter_, &QLineEdit::textChanged, this, &Contents::applyFilter);
}

QTreeWidgetItem* Contents::rowOf(ObjectId id) const {
    const auto it = rows_.find(id);
    return it == rows_.end() ? nullptr : it->second;
}

void Contents::refresh() {
    // While something is dragged nothing changes here.
    const auto change = difference(shown_, session_.document());
    const bool same = change.removed.empty() && tree_->topLevelItemCount() > 0 &&
                      std::all_of(change.changed.begin(), change.changed.end(),
                                  [&](ObjectId id) { return looksTheSame(shown_, session_.document(), id); });
    shown_ = session_.document();
    if (same) {
        if (change.shown) showEyes();
        return;
    }
    filling_ = true;
    std::map<QString, bool> open;
    for (int i = 0; i < tree_->topLevelItemCount(); ++i)
        open[tree_->topLevelItem(i)->data(Name, Title).toString()] = tree_->topLevelItem(i)->isExpanded();
    tree_->clear();
    rows_.clear();
    std::map<std::size_t, QTreeWidgetItem*> headings;
    std::map<QTreeWidgetItem*, int> counts;
    for (const auto& [id, object] : session_.document().objects()) {
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
        top->setText(Name, QStringLiteral("%1  %2").arg(top->data(Name, Title).toString()).arg(count));
    filling_ = false;
    showEyes();
    applyFilter();
    showSelection();
}

QTreeWidgetItem* Contents::addHeading(const QString& title) {
    auto* top = new QTreeWidgetItem(tree_);
    top->setData(Name, Title, title);
    top->setFlags(Qt::ItemIsEnabled | Qt::ItemIsDropEnabled);
    top->setFont(Name, theme::font(12, true));
    return top;
}

QTreeWidgetItem* Contents::holderOf(QTreeWidgetItem* heading, ObjectId group) {
    const auto object = session_.document().find(group);
    if (!object) return heading;
    auto& holder = groups_[{heading, group}];
    if (holder != nullptr) return holder;
    holder = new QTreeWidgetItem(heading, {QString::fromStdString(object->name)});
    if (const auto look = kindOf(*object).look(*object); look.swatch)
        holder->setIcon(Name, swatch(*look.swatch));
    holder->setData(Name, GroupId, QVariant::fromValue<qulonglong>(group.value));
    holder->setFlags(Qt::ItemIsEnabled | Qt::ItemIsDropEnabled);
    holder->setForeground(Name, theme::inkQuiet);
    holder->setExpanded(true);
    return holder;
}

void Contents::addItem(QTreeWidgetItem* parent, const objects::Object& object) {
    auto* item = new QTreeWidgetItem(parent, {QString::fromStdString(object.name)});
    item->setData(Name, Id, QVariant::fromValue<qulonglong>(object.id.value));
    item->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsEditable | Qt::ItemIsDragEnabled |
                   Qt::ItemIsDropEnabled);
    if (const auto look = kindOf(object).look(object); look.swatch) item->setIcon(Name, swatch(*look.swatch));
    rows_[object.id] = item;
}

// ---- eyes

void Contents::showEyes() {
    filling_ = true;
    const auto& document = session_.document();
    const auto set = [](QTreeWidgetItem* item, bool shown, const QString& tip) {
        item->setIcon(Eye, theme::icon(shown ? QStringLiteral("eye") : QStringLiteral("eye-shut")));
        item->setToolTip(Eye, tip);
        item->setData(Eye, Qt::AccessibleTextRole, shown ? tr("shown") : tr("hidden"));
    };
    std::map<QTreeWidgetItem*, bool> any;  // of a heading's objects
    for (const auto& [id, item] : rows_) {
        const auto object = document.find(id);
        if (!object || !kindOf(*object).canHide()) continue;
        const bool shown = document.shown().hidden.count(id) == 0;
        set(item, shown, tr("Shows or hides it"));
        item->setForeground(Name, document.hidden(*object) ? theme::inkQuiet : theme::ink);
        QTreeWidgetItem* top = item;
        while (top->parent() != nullptr) top = top->parent();
        any[top] = any[top] || shown;
    }
    for (const auto& [top, shown] : any) set(top, shown, tr("Shows or hides all of them"));
    for (QTreeWidgetItemIterator it(tree_); *it != nullptr; ++it)
        if (const ObjectId group{(*it)->data(Name, GroupId).toULongLong()})
            set(*it, document.shown().hidden.count(group) == 0, tr("Shows or hides the group"));
    filling_ = false;
}

void Contents::pressEyes(const std::vector<ObjectId>& ids) {
    const auto& document = session_.document();
    std::vector<ObjectId> able;
    for (const ObjectId id : ids)
        if (const auto object = document.find(id); object && kindOf(*object).canHide()) able.push_back(id);
    if (able.empty()) return;
    const bool show = std::none_of(able.begin(), able.end(),
                                   [&](ObjectId id) { return document.shown().hidden.count(id) == 0; });
    const QString what = able.size() == 1 ? QString::fromStdString(document.nameOf(able.front()))
                                          : tr("%1 things").arg(able.size());
    session_.edit((show ? tr("Show %1") : tr("Hide %1")).arg(what), operations::setShown(able, show));
}

void Contents::pressEye(QTreeWidgetItem* item) {
    if (const ObjectId id = idOf(item)) return pressEyes({id});
    if (const ObjectId group{item->data(Name, GroupId).toULongLong()}) return pressEyes({group});
    std::vector<ObjectId> under;
    for (const auto& [id, row] : rows_) {
        const QTreeWidgetItem* top = row;
        while (top->parent() != nullptr) top = top->parent();
        if (top == item) under.push_back(id);
    }
    pressEyes(under);
}

// ---- filter, selection, names, groups

void Contents::applyFilter() {
    const QString letters = filter_->text().trimmed();
    const std::function<bool(QTreeWidgetItem*)> keep = [&](QTreeWidgetItem* item) {
        bool any = false;
        for (int i = 0; i < item->childCount(); ++i) any = keep(item->child(i)) || any;
        const bool fits = any || letters.isEmpty() ||
                          (idOf(item) && item->text(Name).contains(letters, Qt::CaseInsensitive));
        item->setHidden(!fits);
        if (any && !letters.isEmpty()) item->setExpanded(true);
        return fits;
    };
    for (int i = 0; i < tree_->topLevelItemCount(); ++i) keep(tree_->topLevelItem(i));
}

void Contents::drop(const QList<QTreeWidgetItem*>& rows, const QTreeWidgetItem* onto) {
    // On a group, one of its members or its row under a heading: into it; elsewhere: out of any.
    ObjectId group;
    if (onto != nullptr) {
        const ObjectId id = idOf(onto);
        const auto object = session_.document().find(id);
        if (session_.document().get<objects::Group>(id) != nullptr)
            group = id;
        else if (object)
            group = object->group;
        else
            group = {onto->data(Name, GroupId).toULongLong()};
    }
    std::vector<ObjectId> ids;
    for (const auto* row : rows)
        if (const ObjectId id = idOf(row)) ids.push_back(id);
    if (ids.empty()) return;
    const QString what = ids.size() == 1 ? QString::fromStdString(session_.document().nameOf(ids.front()))
                                         : tr("%1 things").arg(ids.size());
    const QString name = group ? QString::fromStdString(session_.document().nameOf(group)) : tr("no group");
    // The tree is still in its own drag.
    QMetaObject::invokeMethod(
        this,
        [this, text = tr("Put %1 into %2").arg(what, name),
         edit = operations::putInGroup(std::move(ids), group)] { session_.edit(text, edit); },
        Qt::QueuedConnection);
}

bool Contents::eventFilter(QObject* watched, QEvent* event) {
    if (event->type() != QEvent::KeyPress) return QWidget::eventFilter(watched, event);
    const auto* key = static_cast<QKeyEvent*>(event);
    if (watched == filter_) {
        if (key->key() == Qt::Key_Escape && !filter_->text().isEmpty()) {
            filter_->clear();
            return true;
        }
        if (key->key() == Qt::Key_Down || key->key() == Qt::Key_Return) {
            tree_->setFocus();
            return true;
        }
    } else if (watched == tree_ && qobject_cast<QLineEdit*>(tree_->focusWidget()) == nullptr) {
        if (key->key() == Qt::Key_Delete) {
            Q_EMIT deletePressed();
            return true;
        }
        if (key->key() == Qt::Key_Space) {
            std::vector<ObjectId> ids;
            for (const auto* item : tree_->selectedItems()) ids.push_back(idOf(item));
            pressEyes(ids);
            return true;
        }
        if (key->key() == Qt::Key_Return || key->key() == Qt::Key_Enter) {
            if (const auto* item = tree_->currentItem(); item != nullptr && idOf(item))
                Q_EMIT showObject(idOf(item));
            return true;
        }
    }
    return QWidget::eventFilter(watched, event);
}

void Contents::showSelection() {
    filling_ = true;
    tree_->clearSelection();
    for (const auto& [id, item] : rows_) {
        if (!session_.selection().holds(id)) continue;
        item->setSelected(true);
        if (!tree_->hasFocus()) tree_->scrollToItem(item);
    }
    filling_ = false;
}

void Contents::renamed(QTreeWidgetItem* item) {
    const ObjectId id = idOf(item);
    if (filling_ || !session_.document().find(id)) return;
    // The tree is still in its own edit: what is meant is done after it.
    QMetaObject::invokeMethod(
        this,
        [this, id, name = item->text(Name).trimmed().toStdString(),
         was = QString::fromStdString(session_.document().nameOf(id))] {
            if (name.empty()) {
                // Without a name it keeps the one it has.
                if (auto* row = rowOf(id)) row->setText(Name, was);
                return;
            }
            session_.edit(tr("Rename %1").arg(was), operations::rename(id, name));
        },
        Qt::QueuedConnection);
}

}  // namespace erdwerk::app

#include "moc_contents.cpp"
