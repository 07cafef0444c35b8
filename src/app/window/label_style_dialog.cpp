#include "app/window/label_style_dialog.h"

#include <QCheckBox>
#include <QDialogButtonBox>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QSpinBox>
#include <QVBoxLayout>

#include "core/operations/edit.h"
#include "core/operations/records.h"

namespace erdwerk::app {

namespace {
enum Columns { Shown, Prefix, Decimals, Above, ColumnCount };
}

LabelStyleDialog::LabelStyleDialog(Session& session, QWidget* parent) : QDialog(parent), session_(session) {
    setObjectName(QStringLiteral("labelStyles"));
    setWindowTitle(tr("Label styles"));
    resize(560, 420);
    auto* layout = new QVBoxLayout(this);
    auto* bar = new QHBoxLayout;
    choice_ = new QComboBox;
    choice_->setAccessibleName(tr("Style"));
    choice_->setMinimumWidth(220);
    bar->addWidget(new QLabel(tr("Style")));
    bar->addWidget(choice_);
    bar->addStretch(1);
    auto* up = new QPushButton(tr("Move up"));
    auto* down = new QPushButton(tr("Move down"));
    up->setAutoDefault(false);
    down->setAutoDefault(false);
    bar->addWidget(up);
    bar->addWidget(down);
    layout->addLayout(bar);
    fields_ = new QTableWidget(0, ColumnCount);
    fields_->setObjectName(QStringLiteral("fields"));
    fields_->setHorizontalHeaderLabels({tr("Field"), tr("Prefix"), tr("Decimals"), tr("Stands")});
    fields_->verticalHeader()->hide();
    fields_->verticalHeader()->setDefaultSectionSize(30);
    fields_->horizontalHeader()->setSectionResizeMode(QHeaderView::Stretch);
    fields_->setSelectionBehavior(QAbstractItemView::SelectRows);
    layout->addWidget(fields_, 1);
    example_ = new QLabel;
    example_->setAlignment(Qt::AlignCenter);
    example_->setStyleSheet(
        QStringLiteral("background: #FAF7F0; border: 1px solid #D9D3C7; padding: 12px; font-size: 14px;"));
    layout->addWidget(example_);
    auto* buttons = new QDialogButtonBox(QDialogButtonBox::Close);
    layout->addWidget(buttons);
    connect(buttons, &QDialogButtonBox::rejected, this, &QDialog::accept);
    connect(up, &QPushButton::clicked, this, [this] { move(-1); });
    connect(down, &QPushButton::clicked, this, [this] { move(1); });
    // Every kind has at least one style.
    session_.edit(tr("Add label styles"), operations::addLabelStyles());
    styles_ = session_.document().all<objects::LabelStyle>();
    for (const ObjectId id : styles_)
        choice_->addItem(
            QString::fromStdString(session_.document().nameOf(id)) + QStringLiteral("  (") +
            QString::fromUtf8(kindName(session_.document().get<objects::LabelStyle>(id)->style.kind).data()) +
            QStringLiteral(")"));
    connect(choice_, &QComboBox::currentIndexChanged, this, &LabelStyleDialog::load);
    connect(fields_, &QTableWidget::itemChanged, this, &LabelStyleDialog::store);
    load();
}

void LabelStyleDialog::load() {
    if (choice_->currentIndex() < 0) return;
    filling_ = true;
    const auto& style =
        session_.document()
            .get<objects::LabelStyle>(styles_[static_cast<std::size_t>(choice_->currentIndex())])
            ->style;
    kind_ = style.kind;
    fields_->setRowCount(0);
    const auto add = [&](const annotate::StyleField& f, bool shown) {
        const int row = fields_->rowCount();
        fields_->insertRow(row);
        auto* name = new QTableWidgetItem(QString::fromUtf8(fieldName(f.field).data()));
        name->setFlags(Qt::ItemIsEnabled | Qt::ItemIsUserCheckable | Qt::ItemIsSelectable);
        name->setCheckState(shown ? Qt::Checked : Qt::Unchecked);
        name->setData(Qt::UserRole, static_cast<int>(f.field));
        fields_->setItem(row, Shown, name);
        fields_->setItem(row, Prefix, new QTableWidgetItem(QString::fromStdString(f.prefix)));
        auto* decimals = new QSpinBox;
        decimals->setRange(0, 6);
        decimals->setValue(f.decimals);
        connect(decimals, &QSpinBox::valueChanged, this, &LabelStyleDialog::store);
        fields_->setCellWidget(row, Decimals, decimals);
        auto* above = new QComboBox;
        above->addItems({tr("above"), tr("below")});
        above->setCurrentIndex(f.above ? 0 : 1);
        connect(above, &QComboBox::currentIndexChanged, this, &LabelStyleDialog::store);
        fields_->setCellWidget(row, Above, above);
    };
    for (const auto& f : style.fields) add(f, true);
    for (const auto field : annotate::fieldsOf(kind_)) {
        const bool used = std::any_of(style.fields.begin(), style.fields.end(),
                                      [&](const auto& f) { return f.field == field; });
        if (!used) add({field, "", 2, true}, false);
    }
    filling_ = false;
    showExample();
}

annotate::LabelStyle LabelStyleDialog::style() const {
    annotate::LabelStyle out{kind_, {}};
    for (int row = 0; row < fields_->rowCount(); ++row) {
        if (fields_->item(row, Shown)->checkState() != Qt::Checked) continue;
        out.fields.push_back(
            {static_cast<annotate::Field>(fields_->item(row, Shown)->data(Qt::UserRole).toInt()),
             fields_->item(row, Prefix)->text().toStdString(),
             qobject_cast<QSpinBox*>(fields_->cellWidget(row, Decimals))->value(),
             qobject_cast<QComboBox*>(fields_->cellWidget(row, Above))->currentIndex() == 0});
    }
    return out;
}

void LabelStyleDialog::change(const annotate::LabelStyle& next) {
    const ObjectId id = styles_[static_cast<std::size_t>(choice_->currentIndex())];
    session_.edit(tr("Change a label style"), [&](const document::Document& d) -> Result<document::Edited> {
        return document::changed<objects::LabelStyle>(d, id, [&](objects::LabelStyle& s) { s.style = next; });
    });
}

void LabelStyleDialog::store() {
    if (filling_ || choice_->currentIndex() < 0) return;
    change(style());
    showExample();
}

void LabelStyleDialog::move(int by) {
    const int row = fields_->currentRow();
    auto next = style();
    const auto count = static_cast<int>(next.fields.size());
    if (row < 0 || row >= count || row + by < 0 || row + by >= count) return;
    std::swap(next.fields[static_cast<std::size_t>(row)], next.fields[static_cast<std::size_t>(row + by)]);
    change(next);
    load();
    fields_->setCurrentCell(row + by, Shown);
}

void LabelStyleDialog::showExample() {
    const auto& display = session_.document().settings().display;
    const geometry::Segment straight{{0, 0}, {24.7, 25.1}, std::nullopt};
    const geometry::Segment curve = geometry::tangentArc({0, 0}, Angle::degrees(45), {40, 12});
    const auto label =
        kind_ == annotate::LabelKind::Point
            ? annotate::labelPoint({"1017", {48072, 91062}, 318.456, "GRND", ""}, style(), display)
            : annotate::labelSegment(kind_ == annotate::LabelKind::Curve ? curve : straight, style(),
                                     display);
    example_->setText(QString::fromStdString(label.above) + QStringLiteral("\n────────────────\n") +
                      QString::fromStdString(label.below));
}

}  // namespace erdwerk::app
