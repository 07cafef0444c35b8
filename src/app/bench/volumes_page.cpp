#include "app/bench/volumes_page.h"

#include <QDate>
#include <QFileInfo>
#include <QHBoxLayout>
#include <QHeaderView>
#include <QPushButton>
#include <QVBoxLayout>

#include "app/base/snapshot.h"
#include "app/bench/table_clipboard.h"
#include "core/format/output.h"
#include "core/format/table_file.h"

namespace erdwerk::app {

namespace {

ObjectId chosen(const QComboBox* box) {
    return {box->currentData().toULongLong()};
}

}  // namespace

VolumesPage::VolumesPage(Session& session, QWidget* parent) : BenchPage(parent), session_(session) {
    auto* layout = new QVBoxLayout(this);
    layout->setContentsMargins(10, 4, 0, 0);
    layout->setSpacing(4);
    layout->addLayout(buildBar());
    table_ = new QTableWidget(0, 7);
    table_->setObjectName(QStringLiteral("volumes"));
    table_->setAccessibleName(tr("Volumes"));
    table_->setHorizontalHeaderLabels({tr("Region"), tr("Cut"), tr("Fill"), tr("Net (fill − cut)"),
                                       tr("Area"), tr("Area in cut"), tr("Area in fill")});
    table_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
    table_->horizontalHeader()->setStretchLastSection(true);
    table_->verticalHeader()->hide();
    table_->verticalHeader()->setDefaultSectionSize(22);
    table_->setEditTriggers(QAbstractItemView::NoEditTriggers);
    new TableClipboard(*table_, session_);
    layout->addWidget(table_, 1);
    startWorker();
    connect(&session_, &Session::resultsChanged, this, &VolumesPage::refresh);
    refresh();
}

QLayout* VolumesPage::buildBar() {
    auto* bar = new QHBoxLayout;
    from_ = new QComboBox;
    to_ = new QComboBox;
    regions_ = new QComboBox;
    from_->setObjectName(QStringLiteral("volumesFrom"));
    to_->setObjectName(QStringLiteral("volumesTo"));
    from_->setAccessibleName(tr("From surface"));
    to_->setAccessibleName(tr("To surface"));
    regions_->setAccessibleName(tr("Regions"));
    for (auto* box : {from_, to_, regions_}) {
        box->setMinimumWidth(70);
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(10);
    }
    map_ = new QCheckBox(tr("Map in the plan"));
    note_ = new QLabel;
    note_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    auto* exportButton = new QPushButton(tr("Report…"));
    exportButton->setStyleSheet(QStringLiteral("padding: 1px 8px;"));
    bar->addWidget(new QLabel(tr("From")));
    bar->addWidget(from_);
    bar->addWidget(new QLabel(tr("to")));
    bar->addWidget(to_);
    bar->addWidget(new QLabel(tr("regions")));
    bar->addWidget(regions_);
    bar->addSpacing(8);
    bar->addWidget(map_);
    bar->addWidget(note_, 1);
    bar->addWidget(exportButton);
    bar->addSpacing(8);
    for (auto* box : {from_, to_, regions_})
        connect(box, &QComboBox::activated, this, [this] {
            of_.clear();
            ask();
        });
    connect(map_, &QCheckBox::toggled, this, &VolumesPage::publishMap);
    connect(exportButton, &QPushButton::clicked, this, &VolumesPage::exportPressed);
    return bar;
}

void VolumesPage::startWorker() {
    worker_ = std::make_unique<LatestWorker<Request, Answer>>(
        this,
        [](const Request& request, const std::atomic<bool>& cancel) -> std::optional<Answer> {
            Context context;
            context.cancelFlag = &cancel;
            auto result = derive::volumesOf(request.snapshot->derived, request.what, context);
            if (cancel) return std::nullopt;
            if (!result) return Answer{request.what, nullptr, result.error().text};
            return Answer{request.what, std::make_shared<const derive::VolumeResult>(std::move(*result)), {}};
        },
        [this](Answer answer) { show(std::move(answer)); },
        [this](const QString& reason) {
            if (!reason.isEmpty()) Q_EMIT session_.message(reason, true);
        });
}

VolumesPage::~VolumesPage() {
    worker_.reset();
}

bool VolumesPage::isWorking() const {
    return !worker_->idle();
}

void VolumesPage::fillChoices() {
    const auto& document = session_.derived().document;
    const auto fill = [&](QComboBox* box, const std::vector<ObjectId>& ids, const QString& none) {
        const auto before = box->currentData();
        box->clear();
        box->addItem(none, QVariant::fromValue<qulonglong>(0));
        for (const ObjectId id : ids)
            box->addItem(QString::fromStdString(document.nameOf(id)),
                         QVariant::fromValue<qulonglong>(id.value));
        box->setCurrentIndex(std::max(0, box->findData(before)));
    };
    fill(from_, document.all<objects::Surface>(), tr("choose"));
    fill(to_, document.all<objects::Surface>(), tr("choose"));
    fill(regions_, document.all<objects::Group>(), tr("none"));
}

void VolumesPage::refresh() {
    setNothing(session_.document().all<objects::Surface>().size() < 2
                   ? tr("Volumes: cut and fill between two surfaces. The project has fewer than two.")
                   : QString());
    fillChoices();
    ask();
}

void VolumesPage::choose(ObjectId from, ObjectId to) {
    from_->setCurrentIndex(std::max(0, from_->findData(QVariant::fromValue<qulonglong>(from.value))));
    to_->setCurrentIndex(std::max(0, to_->findData(QVariant::fromValue<qulonglong>(to.value))));
    of_.clear();
    ask();
}

void VolumesPage::ask() {
    const derive::VolumeRequest what{chosen(from_), chosen(to_), chosen(regions_)};
    if (!what.from || !what.to) {
        of_.clear();
        return show({what, nullptr, tr("Choose two surfaces").toStdString()});
    }
    // Only what the volumes depend on asks for them again.
    const auto& derived = session_.derived();
    std::vector<std::shared_ptr<const void>> of;
    for (const ObjectId id : {what.from, what.to})
        if (const auto it = derived.surfaces.find(id); it != derived.surfaces.end()) of.push_back(it->second);
    if (what.regions)
        for (const auto& [id, line] : derived.lines)
            if (derived.document.find(id)->group == what.regions) of.push_back(line);
    if (of == of_) return;
    of_ = std::move(of);
    note_->setText(tr("working…"));
    worker_->request({session_.snapshot(), what}, true);
}

void VolumesPage::show(Answer answer) {
    shown_ = std::move(answer);
    note_->setText(QString::fromStdString(shown_.problem));
    table_->setRowCount(0);
    if (shown_.result) {
        const auto& display = session_.document().settings().display;
        const QString unit = QString::fromUtf8(unitSymbol(display.unit).data()) + QStringLiteral("³");
        const auto volume = [&](double v) {
            return QString::fromStdString(formatFixed(v, 1)) + QLatin1Char(' ') + unit;
        };
        const auto area = [&](double v) { return QString::fromStdString(formatArea(v, display)); };
        table_->setRowCount(static_cast<int>(shown_.result->rows.size()));
        int r = 0;
        for (const auto& row : shown_.result->rows) {
            const auto& v = row.volumes;
            int c = 0;
            for (const QString& text : {QString::fromStdString(row.name), volume(v.cut), volume(v.fill),
                                        volume(v.net()), area(v.area), area(v.cutArea), area(v.fillArea)}) {
                auto* item = new QTableWidgetItem(text);
                if (c > 0) item->setTextAlignment(Qt::AlignRight | Qt::AlignVCenter);
                table_->setItem(r, c++, item);
            }
            ++r;
        }
    }
    publishMap();
}

void VolumesPage::publishMap() {
    if (!map_->isChecked() || !shown_.result) return Q_EMIT mapChanged(nullptr);
    auto layer = std::make_shared<CutFillLayer>();
    layer->map = shown_.result->map;
    const auto& document = session_.document();
    layer->title = tr("From %1 to %2")
                       .arg(QString::fromStdString(document.nameOf(shown_.what.from)),
                            QString::fromStdString(document.nameOf(shown_.what.to)));
    Q_EMIT mapChanged(std::move(layer));
}

Result<void> VolumesPage::exportTo(const QString& path) const {
    if (!shown_.result) return badInput("choose two surfaces first", path.toStdString());
    if (path.endsWith(QStringLiteral(".html")))
        return format::replaceFile(
            path.toStdString(),
            derive::volumeReport(session_.derived(), shown_.what, *shown_.result,
                                 QDate::currentDate().toString(Qt::ISODate).toStdString()));
    const auto& display = session_.document().settings().display;
    const std::string unit(unitSymbol(display.unit));
    const std::string cubic = " [" + unit + "³]";
    const std::string square = " [" + unit + "²]";
    format::Table table{"Volumes",
                        {"Region", "Cut" + cubic, "Fill" + cubic, "Net (fill - cut)" + cubic, "Area" + square,
                         "Area in cut" + square, "Area in fill" + square},
                        {},
                        {},
                        display.lengthDecimals};
    for (const auto& row : shown_.result->rows) {
        const auto& v = row.volumes;
        table.firstColumn.push_back(row.name);
        table.rows.push_back({v.cut, v.fill, v.net(), v.area, v.cutArea, v.fillArea});
    }
    return format::writeTable(path.toStdString(), table);
}

}  // namespace erdwerk::app

#include "moc_volumes_page.cpp"
