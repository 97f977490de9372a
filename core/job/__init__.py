"""One job, reckoned whole: a mix on its ground with a machine → doses, loads, vessels, cost, verdict and working."""

from core.job.machine import Form as Form
from core.job.machine import Machine as Machine
from core.job.machine import MachineKind as MachineKind
from core.job.machine import check_machine as check_machine
from core.job.machine import takes as takes
from core.job.mix import DosePlan as DosePlan
from core.job.mix import Dosing as Dosing
from core.job.mix import LoadPlan as LoadPlan
from core.job.mix import Part as Part
from core.job.mix import PartPlan as PartPlan
from core.job.mix import Pour as Pour
from core.job.mix import Role as Role
from core.job.mix import one as one
from core.job.mix import role_of as role_of
from core.job.reckon import ComponentPlan as ComponentPlan
from core.job.reckon import Job as Job
from core.job.reckon import reckon as reckon
