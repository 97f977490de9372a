"""One job, reckoned whole: label rate + ground + machine → dose, loads, vessels, cost, verdict and working."""

from core.job.machine import Form as Form
from core.job.machine import Machine as Machine
from core.job.machine import MachineKind as MachineKind
from core.job.machine import check_machine as check_machine
from core.job.machine import takes as takes
from core.job.reckon import Job as Job
from core.job.reckon import LoadPlan as LoadPlan
from core.job.reckon import Part as Part
from core.job.reckon import PartPlan as PartPlan
from core.job.reckon import reckon as reckon
